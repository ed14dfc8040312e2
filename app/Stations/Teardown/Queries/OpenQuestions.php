<?php

namespace App\Stations\Teardown\Queries;

use App\Stations\Teardown\Models\ExtraWork;
use App\Stations\Teardown\Models\LoanPart;
use App\Work\Generation;
use App\Yard\Contracts\Blocker;
use App\Yard\Gate;
use App\Yard\Models\Unit;

/** What teardown left for later gates: a customer who has not answered, a part that must come out again. */
final class OpenQuestions
{
    /** @return list<Blocker> */
    public static function of(Unit $unit): array
    {
        return array_values(ExtraWork::query()
            ->where('unit_id', $unit->id)
            ->where('generation', Generation::of($unit, 'teardown'))
            ->whereNull('answer')
            ->get()
            ->map(fn (ExtraWork $w) => new Blocker(
                Gate::SignOff,
                "extra-work:$w->id",
                "The customer has not answered yet: $w->text.",
                "/units/$unit->core_tag/teardown",
            ))
            ->all());
    }

    /** @return list<Blocker> */
    public static function aboard(Unit $unit): array
    {
        return array_values(LoanPart::query()
            ->where('unit_id', $unit->id)
            ->whereNull('out_at')
            ->get()
            ->map(fn (LoanPart $p) => new Blocker(
                Gate::Ship,
                "loan:$p->id",
                "\"$p->name\" of $p->origin is aboard on loan: it must not ship with this unit.",
                "/units/$unit->core_tag/teardown",
            ))
            ->all());
    }
}
