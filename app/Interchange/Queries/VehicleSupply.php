<?php

namespace App\Interchange\Queries;

use App\Catalog\Models\Application;
use App\Catalog\Models\Variant;
use App\Catalog\Models\Vehicle;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/**
 * What in the house serves a vehicle: units on the shelf, in build and cores in the yard, the cheapest conversion
 * first.
 */
final class VehicleSupply
{
    private const SHOWN = 40;

    /** How near a unit is to leaving the house. */
    private const PLACES = [
        'dispatch' => 'shelf',
        'dyno' => 'build',
        'assembly' => 'build',
        'teardown' => 'core',
        'ordering' => 'core',
        'identification' => 'core',
    ];

    public function __construct(private readonly Conversions $conversions)
    {
    }

    /** @return array<string, mixed> */
    public function of(Vehicle $vehicle, ?int $year): array
    {
        $applications = Application::query()
            ->toBase()
            ->from('applications AS a')
            ->join('variants AS v', 'v.id', '=', 'a.variant_id')
            ->where('a.vehicle_id', $vehicle->id)
            ->when($year !== null, fn ($q) => $q->where('a.from_year', '<=', $year)->where('a.to_year', '>=', $year))
            ->orderBy('a.from_year')
            ->get(['v.id', 'v.code', 'v.name', 'a.from_year', 'a.to_year', 'a.source', 'a.edition', 'a.confidence']);
        $goals = $applications->unique('id');
        $edges = $this->conversions->around(array_map(intval(...), array_values($goals->pluck('id')->all())), 'into');
        $ids = array_values(
            array_unique([...$goals->pluck('id')->all(), ...array_column($edges, 'from_variant_id')]),
        );
        $names = Variant::query()
            ->whereIn('id', $ids)
            ->toBase()
            ->get(['id', 'code', 'name'])
            ->keyBy('id');
        $paths = $this->conversions->paths(
            $edges,
            array_map(strval(...), array_values($names->pluck('code')->all())),
            array_map(strval(...), array_values($goals->pluck('code')->all())),
            json_decode((string) $vehicle->getRawOriginal('facts'), true),
        );
        $units = $this->units($ids, $paths, $names->map(fn (\stdClass $v) => (string) $v->code)->all());

        return [
            'vehicle' => self::vehicle($vehicle),
            'year' => $year,
            'fits' => $applications->map(self::fit(...))->all(),
            'units' => $units['found'],
            'more' => $units['more'],
            'ways' => $names
                ->map(fn (\stdClass $v) => ['variant' => $v->code, 'name' => $v->name] + $paths[$v->code])
                ->sortBy(fn (array $w) => $w['found'] ? $w['total'] : INF)
                ->values()
                ->all(),
        ];
    }

    /** @return array<string, mixed> */
    public static function vehicle(Vehicle $v): array
    {
        return [
            'code' => $v->code,
            'name' => "$v->maker $v->model",
            'engine' => $v->engine,
            'drive' => $v->drive,
            'steering' => $v->steering,
            'years' => "$v->from_year-$v->to_year",
        ];
    }

    /** @return array<string, string> */
    private static function fit(\stdClass $a): array
    {
        return [
            'variant' => $a->code,
            'name' => $a->name,
            'years' => "$a->from_year-$a->to_year",
            'source' => trim("$a->source, $a->edition", ', '),
            'confidence' => $a->confidence,
        ];
    }

    /**
     * @param  list<int>  $variantIds
     * @param  array<string, array<string, mixed>>  $paths
     * @param  array<int, string>  $codes  by variant
     * @return array{found: list<array<string, mixed>>, more: bool}
     */
    private function units(array $variantIds, array $paths, array $codes): array
    {
        $open = array_values(array_filter($variantIds, fn (int $id) => $paths[$codes[$id]]['found']));
        // The cheapest conversions first, so that a long list is cut at its dear end.
        usort($open, fn (int $a, int $b) => $paths[$codes[$a]]['total'] <=> $paths[$codes[$b]]['total']);
        $rows = $open === [] ? collect() : self::rows($open);
        $place = fn (array $u) => array_search($u['station'], array_keys(self::PLACES), true);

        return [
            'more' => $rows->count() > self::SHOWN,
            'found' => array_values($rows
                ->take(self::SHOWN)
                ->map(fn (\stdClass $u) => self::unit($u, $codes[$u->variant_id], $paths[$codes[$u->variant_id]]))
                ->sortBy([
                    fn (array $a, array $b) => $a['total'] <=> $b['total'],
                    fn (array $a, array $b) => $place($a) <=> $place($b),
                ])
                ->all()),
        ];
    }

    /**
     * @param  non-empty-list<int>  $variantIds  in the order they are wanted
     * @return Collection<int, \stdClass>
     */
    private static function rows(array $variantIds): Collection
    {
        $order = implode(',', $variantIds);

        return DB::table('units AS u')
            ->leftJoin('builds AS b', 'b.id', '=', 'u.current_build_id')
            ->leftJoin('customers AS c', 'c.id', '=', 'b.customer_id')
            ->whereIn('u.variant_id', $variantIds)
            ->whereIn('u.station', array_keys(self::PLACES))
            ->where('u.ownership', 'exchange')
            ->orderByRaw(
                "FIELD(u.variant_id, $order), FIELD(u.station, ?, ?, ?, ?, ?, ?), u.id",
                array_keys(self::PLACES),
            )
            ->limit(self::SHOWN + 1)
            ->select(['u.core_tag', 'u.variant_id', 'u.station', 'u.rack', 'u.grade', 'b.serial', 'c.name AS customer'])
            ->selectRaw('EXISTS (SELECT 1 FROM holds h WHERE h.unit_id = u.id AND h.lifted_at IS NULL) AS held')
            ->get();
    }

    /**
     * @param  array<string, mixed>  $path
     * @return array<string, mixed>
     */
    private static function unit(\stdClass $u, string $variant, array $path): array
    {
        return [
            'coreTag' => $u->core_tag,
            'serial' => $u->serial,
            'variant' => $variant,
            'place' => self::PLACES[$u->station],
            'station' => $u->station,
            'rack' => $u->rack,
            'grade' => $u->grade,
            'promisedTo' => $u->customer,
            'held' => (bool) $u->held,
            'total' => $path['total'],
            'hours' => $path['hours'],
            'to' => $path['to'],
            'steps' => count($path['steps']),
        ];
    }
}
