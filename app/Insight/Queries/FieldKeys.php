<?php

namespace App\Insight\Queries;

use App\Yard\Models\Build;
use Illuminate\Database\Connection;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;

/** Under which variant, package and builder a build is counted; 0: not known. */
final class FieldKeys
{
    /** The first to sign the assembly. */
    private const BUILDER = 'SELECT so.signed_by FROM sign_offs so WHERE so.build_id = b.id AND so.loop_no = 1 AND '
        ."so.what = 'assembly' LIMIT 1";

    private const KEYS = 'COALESCE(u.variant_id, 0) AS variant_id, b.package_id, COALESCE(('.self::BUILDER.'), 0) '
        .'AS builder_id';

    /** @return array{variant_id: int, package_id: int, builder_id: int} */
    public static function of(Build $build): array
    {
        $row = self::builds(DB::connection())->where('b.id', $build->id)->selectRaw(self::KEYS)->sole();

        return [
            'variant_id' => (int) $row->variant_id,
            'package_id' => (int) $row->package_id,
            'builder_id' => (int) $row->builder_id,
        ];
    }

    /** Counts everything anew: after data came in another way than through the stations. */
    public static function recount(Connection $db): void
    {
        $db->table('field_counts')->delete();
        $db->table('field_counts')->insertUsing(
            ['variant_id', 'package_id', 'builder_id', 'shipped', 'returned'],
            self::builds($db)
                ->join('shipments AS s', 's.build_id', '=', 'b.id')
                ->selectRaw(
                    self::KEYS.', COUNT(*), SUM(EXISTS (SELECT 1 FROM returns r WHERE r.build_id = b.id))',
                )
                ->groupByRaw('1, 2, 3'),
        );
    }

    private static function builds(Connection $db): Builder
    {
        return $db->table('builds AS b')->join('units AS u', 'u.id', '=', 'b.unit_id');
    }
}
