<?php

namespace App\Stock\Http;

use App\Catalog\Models\Part;
use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\DB;

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
                        'pieces' => (int) $p->pieces,
                    ],
                )
                ->values(),
            'after' => $rows->count() > $page->count() ? $page->last()->number : null,
        ]);
    }

    /** Which units carry this lot, and where they are: the urgent question when a lot is bad. */
    public function lot(string $lot): JsonResponse
    {
        $rows = DB::table('installed_parts AS i')
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

        return response()->json([
            'lot' => $lot,
            'units' => $rows->map(
                fn ($r) => [
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
