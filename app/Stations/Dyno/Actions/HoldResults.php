<?php

namespace App\Stations\Dyno\Actions;

use App\Shop\Models\Person;
use App\Stations\Dyno\Models\Run;
use App\Stations\Dyno\Queries\SinceGood;
use App\Yard\Actions\PlaceHold;
use App\Yard\Models\Hold;
use App\Yard\StationName;

/** A cell that drifted holds what it let pass since it was last known to be right, as far as that is in the house. */
final class HoldResults
{
    public const KIND = 'cell-drift';

    public function __construct(private readonly PlaceHold $holds, private readonly SinceGood $since)
    {
    }

    /** @param  list<string>  $moved  readings of the cell that lie outside */
    public function since(Run $reference, array $moved): void
    {
        $by = Person::query()->findOrFail($reference->started_by);
        foreach ($this->since->passed($reference->cell, $reference->id) as $run) {
            $unit = $run->build->unit;
            $held = Hold::query()
                ->where('unit_id', $unit->id)
                ->where('kind', self::KIND)
                ->whereNull('lifted_at')
                ->exists();
            if ($held || ! in_array($unit->station, StationName::inHouse(), true)) {
                continue;
            }
            $what = mb_strimwidth(implode(', ', $moved), 0, 140, '…');
            $this->holds->place(
                $unit,
                self::KIND,
                "Cell $reference->cell drifted ($what), and run $run->id was made there since it was last right.",
                $by,
            );
        }
    }
}
