<?php

namespace App\Stock\Queries;

use App\Stock\Models\Lot;
use App\Yard\Contracts\ScanHit;

/** Lots by their number. */
final class StockNumbers
{
    /** @return list<ScanHit> */
    public function scan(string $typed): array
    {
        return array_values(Lot::query()
            ->where('lot', mb_strtoupper($typed))
            ->distinct()
            ->limit(3)
            ->pluck('lot')
            ->map(fn (string $lot) => new ScanHit('Lot', $lot, 'which units carry it', '/lots/'.rawurlencode($lot)))
            ->values()
            ->all());
    }
}
