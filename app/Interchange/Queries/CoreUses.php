<?php

namespace App\Interchange\Queries;

use App\Catalog\Models\Variant;
use App\Catalog\Models\Vehicle;
use App\Yard\Models\Unit;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/** What a core can become: the vehicles it serves, as it is or converted, and what such units sold for lately. */
final class CoreUses
{
    private const SHOWN = 120;

    /** Prices the median is taken of, the newest. */
    private const PRICES = 200;

    public function __construct(private readonly Conversions $conversions)
    {
    }

    /** @return array<string, mixed> */
    public function of(Unit $unit): array
    {
        $variant =
            $unit->variant ??
            throw new \App\Kernel\Refusal(
                "Core $unit->core_tag is not identified yet; what it fits follows from its variant.",
                409,
            );
        $edges = $this->conversions->around([$variant->id], 'out of');
        $ids = array_values(array_unique([$variant->id, ...array_column($edges, 'to_variant_id')]));
        $names = Variant::query()->whereIn('id', $ids)->toBase()->get(['id', 'code', 'name'])->keyBy('id');
        $rows = self::applications($ids);
        // Vehicles with equal facts allow the same conversions: one search for each set of facts.
        $paths = [];
        foreach ($rows->groupBy('facts') as $facts => $group) {
            foreach ($group->pluck('variant_id')->unique() as $goal) {
                $paths[$facts][$goal] = $this->conversions->paths(
                    $edges,
                    [$variant->code],
                    [(string) $names[$goal]?->code],
                    json_decode((string) $facts, true),
                )[$variant->code];
            }
        }

        return [
            'coreTag' => $unit->core_tag,
            'variant' => ['code' => $variant->code, 'name' => $variant->name],
            'prices' => $names
                ->map(fn (\stdClass $v) => ['variant' => $v->code, 'name' => $v->name] + self::sold((int) $v->id))
                ->sortByDesc('sold')
                ->values()
                ->all(),
            'serves' => $rows
                ->map(fn (\stdClass $r) => self::served($r) + [
                    'variant' => $names[$r->variant_id]?->code,
                    'way' => $paths[$r->facts][$r->variant_id],
                ])
                ->sortBy(fn (array $s) => $s['way']['found'] ? $s['way']['total'] : INF)
                ->values()
                ->all(),
        ];
    }

    /**
     * @param  list<int>  $variantIds
     * @return Collection<int, \stdClass> vehicles that carry one of them
     */
    private static function applications(array $variantIds): Collection
    {
        return DB::table('applications AS a')
            ->join('vehicles AS v', 'v.id', '=', 'a.vehicle_id')
            ->whereIn('a.variant_id', $variantIds)
            ->orderBy('v.maker')
            ->orderBy('v.model')
            ->orderBy('a.from_year')
            ->limit(self::SHOWN)
            ->select(['v.*', 'a.variant_id', 'a.from_year AS a_from', 'a.to_year AS a_to'])
            ->addSelect(['a.source', 'a.edition', 'a.confidence'])
            ->get();
    }

    /** @return array<string, mixed> */
    private static function served(\stdClass $r): array
    {
        return [
            'vehicle' => VehicleSupply::vehicle((new Vehicle())->newFromBuilder((array) $r)),
            'years' => "$r->a_from-$r->a_to",
            'source' => trim("$r->source, $r->edition", ', '),
            'confidence' => $r->confidence,
        ];
    }

    /**
     * @return array{sold: int, median: ?float, last: ?float,
     *     lastOn: ?string} builds of the variant shipped in the last year
     */
    private static function sold(int $variantId): array
    {
        $sold = DB::table('sales')->where('variant_id', $variantId)->where('shipped_at', '>', now()->subYear());
        $rows = $sold
            ->clone()
            ->orderByDesc('shipped_at')
            ->limit(self::PRICES)
            ->get(['price', 'shipped_at']);
        $prices = $rows->map(fn (\stdClass $r) => (float) $r->price)->sort()->values();
        $n = $prices->count();

        return [
            'sold' => $n < self::PRICES ? $n : $sold->count(),
            'median' => $n === 0 ? null : ($prices[intdiv($n - 1, 2)] + $prices[intdiv($n, 2)]) / 2,
            'last' => $n === 0 ? null : (float) $rows->firstOrFail()->price,
            'lastOn' => $n === 0 ? null : substr($rows->firstOrFail()->shipped_at, 0, 10),
        ];
    }
}
