<?php

namespace App\Stations\Receiving\Queries;

use App\Yard\Contracts\Blocker;
use App\Yard\Gate;
use App\Yard\Models\Photo;
use App\Yard\Models\Unit;

/**
 * Damage that was there on arrival is photographed before a tool touches the unit: a loose bolt is evidence only until
 * someone tightens it.
 */
final class DamageEvidence
{
    /** @return list<Blocker> a place of damage without its photo bars the first tool */
    public function missing(Unit $unit): array
    {
        $places = $unit->damageMarks->pluck('place')->unique()->values()->all();
        $kept = $places === [] ? [] : Photo::query()->where('unit_id', $unit->id)->pluck('place')->all();

        return array_map(
            fn (string $place) => new Blocker(
                Gate::FirstTool,
                "damage:$place",
                "Damage was noted on arrival at $place; photograph it there before a tool touches the unit.",
                "/units/$unit->core_tag/receiving",
            ),
            array_values(array_diff($places, $kept)),
        );
    }
}
