<?php

namespace App\Stations\Teardown\Queries;

use App\Stations\Teardown\Models\Finding;
use App\Work\Bench;
use App\Work\Generation;
use App\Work\OperationSpec;
use App\Work\Queries\BenchWork;
use App\Work\Queries\CountsThatDiffer;
use App\Yard\Contracts\Blocker;
use App\Yard\Gate;
use App\Yard\Models\Unit;

/** Teardown is over when every step is done and something was inspected. */
final class OpenTeardown
{
    /** @return list<Blocker> */
    public function of(Unit $unit): array
    {
        $bar = fn (string $code, string $sentence) => new Blocker(
            Gate::CloseTeardown,
            $code,
            $sentence,
            "/units/$unit->core_tag/teardown",
        );
        $work = BenchWork::of($unit, Bench::Teardown);
        $blockers = array_map(
            fn (OperationSpec $o) => $bar("step:$o->code", "Still to do: $o->name."),
            $work->left(),
        );
        $inspected = Finding::query()
            ->where('unit_id', $unit->id)
            ->where('generation', Generation::of($unit, 'teardown'))
            ->exists();

        foreach (CountsThatDiffer::at($unit, Bench::Teardown)->whereNull('decision') as $open) {
            $blockers[] = $bar("count:$open->id", ucfirst("{$open->said()}: say what became of it."));
        }

        return $inspected ? $blockers : [...$blockers, $bar('inspection', 'No part has been inspected yet.')];
    }
}
