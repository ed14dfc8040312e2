<?php

namespace App\Identification;

use App\Track\Unit;

/** Parts of other variants that a confirmed core carries: what the order desk must know before it orders. */
final class ForeignParts
{
    /** @return list<array{feature: ?string, part: string, seen: ?string, from: list<string>, ordering: string}> */
    public function of(Unit $unit): array
    {
        return Identification::query()->where('unit_id', $unit->id)->where('outcome', 'confirmed')->orderByDesc('id')->first()?->foreign_parts ?? [];
    }
}
