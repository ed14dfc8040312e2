<?php

namespace App\Stock\Http;

use App\Catalog\Models\Part;
use App\Stock\Queries\UnitsWithLot;
use Illuminate\Http\JsonResponse;

final class StockController
{
    public function index(StockListRequest $request): JsonResponse
    {
        $in = $request->validated();
        $query = Part::query()
            ->leftJoin('stock_lots', 'stock_lots.part_id', '=', 'parts.id')
            ->groupBy('parts.id')
            ->selectRaw('parts.*, COALESCE(SUM(quantity), 0) AS pieces')
            ->orderBy('number')
            ->limit(config('yard.page_size') + 1);
        if (($in['q'] ?? '') !== '') {
            $query->where(
                fn ($w) => $w
                    ->where('number', 'like', $in['q'].'%')
                    ->orWhereFullText(['number', 'name', 'aliases'], $in['q']),
            );
        }
        if (isset($in['after'])) {
            $query->where('number', '>', $in['after']);
        }
        $rows = $query->get();
        $page = $rows->take(config('yard.page_size'));

        return response()->json([
            'parts' => $page
                ->map(
                    fn (Part $p) => [
                        'number' => $p->number,
                        'name' => $p->name,
                        'kind' => $p->kind,
                        'price' => (float) $p->price,
                        'thickness' => $p->thickness === null ? null : (float) $p->thickness,
                        'thicknessUnit' => $p->thickness_unit,
                        'aliases' => $p->aliases,
                        'pieces' => (int) $p->getAttribute('pieces'),
                    ],
                )
                ->values(),
            'after' => $rows->count() > $page->count() ? $page->last()?->number : null,
        ]);
    }

    /** Which units carry this lot, and where they are: the urgent question when a lot is bad. */
    public function lot(string $lot, UnitsWithLot $units): JsonResponse
    {
        $rows = $units->of($lot);

        return response()->json([
            'lot' => $lot,
            'units' => $rows->map(
                fn (\stdClass $r) => [
                    'serial' => $r->serial,
                    'coreTag' => $r->core_tag,
                    'station' => $r->station,
                    'customer' => $r->customer,
                    'part' => $r->number,
                    'partName' => $r->part,
                    'place' => $r->place,
                    'count' => $r->count,
                ],
            ),
        ]);
    }
}
