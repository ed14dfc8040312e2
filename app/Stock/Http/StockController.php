<?php

namespace App\Stock\Http;

use App\Catalog\Models\Part;
use App\Kernel\SortedPages;
use App\Stock\Queries\Shelf;
use App\Stock\Queries\UnitsWithLot;
use Illuminate\Http\JsonResponse;
use Symfony\Component\HttpFoundation\StreamedResponse;

final class StockController
{
    public function index(StockListRequest $request, Shelf $shelf): JsonResponse
    {
        $in = $request->validated();
        $size = (int) config('yard.page_size');
        $total = $shelf->total($in['q'] ?? '');
        $page = $shelf->page($in['q'] ?? '', $total, $in['sort'] ?? null, $in['after'] ?? null, $size);

        return response()->json([
            'total' => $total,
            'parts' => array_map(self::shown(...), $page->items()),
            'after' => SortedPages::after($page),
        ]);
    }

    /** @return array<string, mixed> */
    private static function shown(Part $p): array
    {
        return [
            'number' => $p->number,
            'name' => $p->name,
            'kind' => $p->kind,
            'price' => (float) $p->price,
            'thickness' => $p->thickness === null ? null : (float) $p->thickness,
            'thicknessUnit' => $p->thickness_unit,
            'aliases' => $p->aliases,
            'pieces' => (int) $p->getAttribute('pieces'),
        ];
    }

    /** Which units carry this lot, and where they are: the urgent question when a lot is bad. */
    public function lot(LotRequest $request, string $lot, UnitsWithLot $units): JsonResponse
    {
        $in = $request->validated();
        $size = (int) config('yard.page_size');
        $page = $units->page($lot, $in['sort'] ?? null, $in['after'] ?? null, $size);

        return response()->json([
            'lot' => $lot,
            'total' => $units->totals($lot),
            'after' => SortedPages::after($page),
            'units' => array_map(
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
                $page->items(),
            ),
        ]);
    }

    /** The whole recall as a file: one row a place, for the telephone and the post. */
    public function recall(string $lot, UnitsWithLot $units): StreamedResponse
    {
        return response()->streamDownload(
            function () use ($lot, $units): void {
                $out = fopen('php://output', 'w') ?: throw new \RuntimeException('No output.');
                $write = fn (array $row) => fputcsv($out, array_map(self::cell(...), $row), escape: '', eol: "\r\n");
                $write(['serial', 'core_tag', 'station', 'customer', 'part', 'part_name', 'place', 'count']);
                foreach ($units->all($lot) as $r) {
                    $write([
                        $r->serial,
                        $r->core_tag,
                        $r->station,
                        $r->customer,
                        $r->number,
                        $r->part,
                        $r->place,
                        $r->count,
                    ]);
                }
            },
            'lot-'.preg_replace('/[^A-Za-z0-9-]+/', '-', $lot).'.csv',
            ['Content-Type' => 'text/csv'],
        );
    }

    /** A cell that a spreadsheet would run as a formula is written as text. */
    private static function cell(mixed $value): string
    {
        $text = (string) $value;

        return preg_match('/^[=+@\t\r-]/', $text) === 1 ? "'$text" : $text;
    }
}
