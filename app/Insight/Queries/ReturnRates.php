<?php

namespace App\Insight\Queries;

use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use Yard\Core\Calculators;

/** Returns among shipped units by variant, package and builder, each with its exact interval. */
final class ReturnRates
{
    private const GROUPS = [
        'variant' => ['v.name', 'Variant'],
        'package' => ['p.name', 'Package'],
        'builder' => ['pe.name', 'Builder'],
    ];

    /** @return list<array{by: string, title: string, rows: list<array<string, mixed>>}> */
    public function groups(): array
    {
        $out = [];
        foreach (self::GROUPS as $key => [$column, $title]) {
            $out[] = [
                'by' => $key,
                'title' => $title,
                'rows' => array_values($this->counted($column)->map(self::row(...))->all()),
            ];
        }

        return $out;
    }

    /** @return Collection<int, \stdClass> verdicts of all returns, the commonest first */
    public function causes(): Collection
    {
        return DB::table('returns')
            ->selectRaw("COALESCE(verdict, 'open') AS verdict, COUNT(*) AS n")
            ->groupBy('verdict')
            ->orderByDesc('n')
            ->get();
    }

    /** @return Collection<int, \stdClass> name, units, failures */
    private function counted(string $column): Collection
    {
        return DB::table('shipments AS s')
            ->join('builds AS b', 'b.id', '=', 's.build_id')
            ->join('units AS u', 'u.id', '=', 'b.unit_id')
            ->leftJoin('variants AS v', 'v.id', '=', 'u.variant_id')
            ->join('packages AS p', 'p.id', '=', 'b.package_id')
            ->leftJoin(
                'sign_offs AS so',
                fn ($j) => $j->on('so.build_id', '=', 'b.id')->where('so.what', 'assembly')->where('so.loop_no', 1),
            )
            ->leftJoin('people AS pe', 'pe.id', '=', 'so.signed_by')
            ->leftJoin('returns AS r', 'r.build_id', '=', 'b.id')
            ->groupBy($column)
            ->orderBy($column)
            ->selectRaw("$column AS name, COUNT(DISTINCT b.id) AS units, COUNT(DISTINCT r.build_id) AS failures")
            ->get();
    }

    /** @return array<string, mixed> */
    private static function row(\stdClass $r): array
    {
        $interval = Calculators::call('rate.interval', ['failures' => $r->failures, 'units' => $r->units]);

        return ['name' => $r->name ?? 'not known', 'units' => $r->units, 'failures' => $r->failures] +
            array_intersect_key($interval, ['rate' => 0, 'lower' => 0, 'upper' => 0]);
    }
}
