<?php

namespace App\Stations\Identification\Queries;

use App\Stations\Identification\Models\Identification;
use App\Yard\Contracts\ForeignParts;
use App\Yard\Models\Unit;

/** Parts of other variants that a confirmed core carries: what the order desk must know before it orders. */
final class ForeignPartsSeen implements ForeignParts
{
    /** @return list<array{feature: ?string, part: string, seen: ?string, from: list<string>, ordering: string}> */
    public function of(Unit $unit): array
    {
        $decision = Identification::query()
            ->where('unit_id', $unit->id)
            ->where('outcome', 'confirmed')
            ->orderByDesc('id')
            ->first();

        return $decision === null ? [] : array_values($decision->foreign_parts);
    }
}
