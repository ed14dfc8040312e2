<?php

namespace App\Insight\Http;

use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\DB;
use Yard\Core\Calculators;

final class InsightController
{
    /** Returns among shipped units by variant, package and builder, each with its exact interval. */
    public function returnRates(): JsonResponse
    {
        $out = [];
        foreach (
            [
                'variant' => ['v.name', 'Variant'],
                'package' => ['p.name', 'Package'],
                'builder' => ['pe.name', 'Builder'],
            ] as $key => [$column, $title]
        ) {
            $rows = DB::table('shipments AS s')
                ->join('builds AS b', 'b.id', '=', 's.build_id')
                ->join('units AS u', 'u.id', '=', 'b.unit_id')
                ->leftJoin('variants AS v', 'v.id', '=', 'u.variant_id')
                ->join('packages AS p', 'p.id', '=', 'b.package_id')
                ->leftJoin(
                    'sign_offs AS so',
                    fn ($j) => $j
                        ->on('so.build_id', '=', 'b.id')
                        ->where('so.what', 'assembly')
                        ->where('so.loop_no', 1),
                )
                ->leftJoin('people AS pe', 'pe.id', '=', 'so.signed_by')
                ->leftJoin('returns AS r', 'r.build_id', '=', 'b.id')
                ->groupBy($column)
                ->orderBy($column)
                ->selectRaw("$column AS name, COUNT(DISTINCT b.id) AS units, COUNT(DISTINCT r.build_id) AS failures")
                ->get();
            $out[] = [
                'by' => $key,
                'title' => $title,
                'rows' => $rows->map(
                    fn ($r) => ['name' => $r->name ?? 'not known', 'units' => $r->units, 'failures' => $r->failures] +
                        array_intersect_key(
                            Calculators::call('rate.interval', ['failures' => $r->failures, 'units' => $r->units]),
                            ['rate' => 0, 'lower' => 0, 'upper' => 0],
                        ),
                ),
            ];
        }
        $causes = DB::table('returns')
            ->selectRaw("COALESCE(verdict, 'open') AS verdict, COUNT(*) AS n")
            ->groupBy('verdict')
            ->orderByDesc('n')
            ->get();

        return response()->json([
            'confidence' => 0.95,
            'method' => 'Clopper-Pearson',
            'groups' => $out,
            'causes' => $causes,
        ]);
    }
}
