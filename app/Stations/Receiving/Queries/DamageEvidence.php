<?php

namespace App\Stations\Receiving\Queries;

use App\Kernel\Refusal;
use App\Yard\Models\Photo;
use App\Yard\Models\Unit;

/**
 * Damage that was there on arrival is photographed before a tool touches the unit: a loose bolt is evidence only until
 * someone tightens it.
 */
final class DamageEvidence
{
    public function assertKept(Unit $unit): void
    {
        $places = array_values(array_unique(array_column($unit->damage, 'place')));
        $open =
            $places === []
                ? []
                : array_values(
                    array_diff($places, Photo::query()->where('unit_id', $unit->id)->pluck('place')->all()),
                );
        if ($open !== []) {
            throw new Refusal(
                'Damage was noted on arrival at '.
                    implode(', ', $open).
                    '; photograph it there before a tool touches the unit.',
                409,
            );
        }
    }
}
