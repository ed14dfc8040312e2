<?php

namespace App\Stations\Dyno\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Stations\Dyno\Models\ReferenceUnit;
use App\Yard\Contracts\DynoRecord;
use App\Yard\Gatekeeper;
use App\Yard\Models\Unit;
use App\Yard\StationName;

/** Keeps a unit that passed in the house as the reference of a cell, or lets it go again. */
final class KeepReference
{
    public function __construct(private readonly Ledger $ledger, private readonly DynoRecord $record)
    {
    }

    public function keep(string $cell, Unit $unit, Person $by): void
    {
        $before = ReferenceUnit::of($cell);
        if ($before !== null) {
            throw new Refusal("Cell $cell has {$before->build->serial} as its reference; let that go first.", 409);
        }
        Gatekeeper::at($unit, StationName::Dispatch);
        $build = $unit->currentBuild;
        if ($unit->ownership !== 'exchange') {
            throw Refusal::at('/coreTag', "Unit $unit->core_tag is its customer's own; a reference stays here.");
        }
        if ($build === null || $this->record->passed($build) === null) {
            throw Refusal::at('/coreTag', "Unit $unit->core_tag has not passed in a cell: nothing can be told by it.");
        }
        if (ReferenceUnit::query()->where('build_id', $build->id)->whereNull('released_at')->exists()) {
            throw Refusal::at('/coreTag', "Unit $unit->core_tag is the reference of another cell.");
        }
        ReferenceUnit::create(['cell' => $cell, 'build_id' => $build->id, 'kept_by' => $by->id, 'kept_at' => now()]);
        $this->ledger->onUnit($unit, 'reference.kept', ['cell' => $cell, 'serial' => $build->serial]);
    }

    public function release(string $cell, Person $by): void
    {
        $kept = ReferenceUnit::of($cell) ?? throw new Refusal("Cell $cell has no reference unit.", 409);
        $kept->update(['released_by' => $by->id, 'released_at' => now()]);
        $this->ledger->onUnit($kept->build->unit, 'reference.released', ['cell' => $cell]);
    }
}
