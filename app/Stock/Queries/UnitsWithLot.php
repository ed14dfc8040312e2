<?php

namespace App\Stock\Queries;

use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/** Which units carry a lot, and where they are. */
final class UnitsWithLot
{
    /** @return Collection<int, \stdClass> */
    public function of(string $lot): Collection
    {
        return DB::table('installed_parts AS i')
            ->join('stock_lots AS l', 'l.id', '=', 'i.lot_id')
            ->join('parts AS p', 'p.id', '=', 'i.part_id')
            ->join('builds AS b', 'b.id', '=', 'i.build_id')
            ->join('units AS u', 'u.id', '=', 'b.unit_id')
            ->leftJoin('customers AS c', 'c.id', '=', 'b.customer_id')
            ->where('l.lot', $lot)
            ->whereNull('i.removed_at')
            ->orderBy('b.serial')
            ->limit(1000)
            ->get([
                'p.number',
                'p.name AS part',
                'b.serial',
                'u.core_tag',
                'u.station',
                'i.place',
                'i.count',
                'c.name AS customer',
            ]);
    }
}
