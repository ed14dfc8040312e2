<?php

namespace App\Stations\Teardown\Queries;

use App\Stations\Teardown\Models\Finding;
use App\Work\Generation;
use App\Work\Queries\StepList;
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
        $open = StepList::of($unit, 'teardown')->open();
        $blockers = array_map(
            fn (array $step) => $bar("step:{$step['code']}", "Still to do: {$step['name']}."),
            $open,
        );
        $inspected = Finding::query()
            ->where('unit_id', $unit->id)
            ->where('generation', Generation::of($unit, 'teardown'))
            ->exists();

        return $inspected ? $blockers : [...$blockers, $bar('inspection', 'No part has been inspected yet.')];
    }
}
