<?php

namespace App\Insight\Queries;

use Illuminate\Database\Connection;

/** What builds were sold for, by variant. */
final class Sales
{
    /** Written anew: after data came in another way than through dispatch. */
    public static function recount(Connection $db): void
    {
        $db->table('sales')->delete();
        $db->table('sales')->insertUsing(
            ['variant_id', 'shipped_at', 'build_id', 'price'],
            $db
                ->table('shipments AS s')
                ->join('builds AS b', 'b.id', '=', 's.build_id')
                ->join('units AS u', 'u.id', '=', 'b.unit_id')
                ->whereNotNull('u.variant_id')
                ->select(['u.variant_id', 's.shipped_at', 'b.id', 'b.price']),
        );
    }
}
