<?php

namespace App\Stations\Dyno\Queries;

use App\Shop\HouseRules;
use App\Stations\Dyno\Models\ReferenceUnit;
use App\Stations\Dyno\Models\Run;
use App\Yard\Contracts\Blocker;
use App\Yard\Gate;
use App\Yard\Models\Unit;

/** What a cell has against a unit: a pass in a cell that drifted is none, and a reference does not leave the house. */
final class CellsBar
{
    private const PLACE = '/dyno/cells';

    public function __construct(private readonly HouseRules $rules, private readonly CellsShown $cells)
    {
    }

    /** @return list<Blocker> */
    public function againstPass(Unit $unit): array
    {
        $run = Run::ofUnits()
            ->where('build_id', $unit->current_build_id)
            ->where('state', 'analysed')
            ->latest('id')
            ->first(['id', 'cell']);
        if ($run === null) {
            return [];
        }
        $last = Run::references($run->cell)->latest('id')->first(['id', 'verdict', 'verdict_reason']);
        if ($last?->verdict === 'fail') {
            $sentence = "Cell $run->cell drifted at its last reference run ($last->verdict_reason), so nothing passes ".
                'in it until its reference unit shows what it should.';

            return [new Blocker(Gate::Pass, "cell-drift:$run->cell", $sentence, self::PLACE)];
        }
        $barred = $this->rules->choice('reference-run') === 'bar' && $this->cells->due($run->cell);

        return ! $barred ? [] : [
            new Blocker(
                Gate::Pass,
                "reference-due:$run->cell",
                "Cell $run->cell had no good reference run within the hours the house gives it.",
                self::PLACE,
            ),
        ];
    }

    /** @return list<Blocker> */
    public function againstShipping(Unit $unit): array
    {
        $kept = ReferenceUnit::query()
            ->where('build_id', $unit->current_build_id)
            ->whereNull('released_at')
            ->first();

        return $kept === null ? [] : [
            new Blocker(
                Gate::Ship,
                "reference:$kept->cell",
                "This unit is the reference of cell $kept->cell and stays in the house.",
                self::PLACE,
            ),
        ];
    }
}
