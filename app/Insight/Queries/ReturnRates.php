<?php

namespace App\Insight\Queries;

use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use Yard\Core\Life\FailureRate;

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
        return DB::table('field_counts AS c')
            ->leftJoin('variants AS v', 'v.id', '=', 'c.variant_id')
            ->leftJoin('packages AS p', 'p.id', '=', 'c.package_id')
            ->leftJoin('people AS pe', 'pe.id', '=', 'c.builder_id')
            ->groupBy($column)
            ->orderBy($column)
            ->selectRaw("$column AS name, SUM(shipped) AS units, SUM(returned) AS failures")
            ->havingRaw('units > 0')
            ->get();
    }

    /** @return array<string, mixed> */
    private static function row(\stdClass $r): array
    {
        [$units, $failures] = [(int) $r->units, (int) $r->failures];
        $rate = FailureRate::ofUnits($failures, $units);

        return [
            'name' => $r->name ?? 'not known',
            'units' => $units,
            'failures' => $failures,
            'rate' => $rate->rate,
            'lower' => $rate->lower,
            'upper' => $rate->upper,
        ];
    }
}
