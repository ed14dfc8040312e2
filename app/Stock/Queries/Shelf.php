<?php

namespace App\Stock\Queries;

use App\Catalog\Models\Part;
use App\Kernel\SortedPages;
use App\Kernel\Tally;
use Illuminate\Contracts\Pagination\CursorPaginator;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Facades\DB;

/** Parts by number or by any of their names, with the pieces on the shelf. */
final class Shelf
{
    private const ORDERS = ['number' => 'parts.number', 'name' => 'parts.name', 'price' => 'parts.price'];

    /** @return CursorPaginator<int, Part> `pieces` on each */
    public function page(string $typed, ?string $sort, ?string $after, int $size): CursorPaginator
    {
        $page = (new SortedPages(self::ORDERS, 'parts.number'))->page(
            $this->called($typed)->select('parts.*'),
            $sort,
            $after,
            $size,
        );
        // The page is cut first: only its own lots are added up.
        $pieces = DB::table('stock_lots')
            ->whereIn('part_id', array_map(fn (Part $p) => $p->id, $page->items()))
            ->where('quantity', '>', 0)
            ->groupBy('part_id')
            ->selectRaw('part_id, SUM(quantity) AS pieces')
            ->pluck('pieces', 'part_id');

        array_map(fn (Part $p) => $p->setAttribute('pieces', (int) ($pieces[$p->id] ?? 0)), $page->items());

        return $page;
    }

    public function total(string $typed): int
    {
        return $typed === '' ? Tally::of('parts') : $this->called($typed)->count();
    }

    /** @return Builder<Part> */
    private function called(string $typed): Builder
    {
        if ($typed === '') {
            return Part::query();
        }

        return Part::called($typed);
    }
}
