<?php

namespace App\Stock\Queries;

use Illuminate\Support\Facades\DB;

/** What stands in a build now, in one query: a card is read often. */
final class InstalledNow
{
    /** @return list<\stdClass> part, name, count, place, origin, lot, serial */
    public static function in(int $build): array
    {
        $rows = DB::table('installed_parts AS i')
            ->join('parts AS p', 'p.id', '=', 'i.part_id')
            ->leftJoin('stock_lots AS l', 'l.id', '=', 'i.lot_id')
            ->where('i.build_id', $build)
            ->whereNull('i.removed_at')
            ->orderBy('i.id')
            ->get(['p.number AS part', 'p.name', 'i.count', 'i.place', 'i.origin', 'l.lot', 'i.serial']);

        return array_values($rows->all());
    }
}
