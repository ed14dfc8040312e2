<?php

namespace App\Stations\Returns\Queries;

use App\Stations\Returns\Models\UnitReturn;
use App\Yard\Contracts\ScanHit;

/** Returns by their number. */
final class ReturnNumbers
{
    /** @return list<ScanHit> */
    public function scan(string $typed): array
    {
        return array_values(UnitReturn::query()
            ->with('unit:id,core_tag')
            ->where('number', mb_strtoupper($typed))
            ->limit(3)
            ->get()
            ->map(
                fn (UnitReturn $r) => new ScanHit(
                    'Return',
                    $r->number,
                    "core {$r->unit->core_tag}",
                    "/units/{$r->unit->core_tag}/returns",
                ),
            )
            ->values()
            ->all());
    }
}
