<?php

namespace App\Stock\Queries;

use App\Catalog\Models\Part;
use App\Kernel\SortedPages;
use App\Kernel\Tally;
use Illuminate\Contracts\Pagination\CursorPaginator;
use Illuminate\Support\Facades\DB;

/** Parts by number or by any of their names, with the pieces on the shelf. */
final class Shelf
{
    private const ORDERS = ['number' => 'parts.number', 'name' => 'parts.name', 'price' => 'parts.price'];

    /** From so many on a page is found sooner by walking the list in its order than by sorting what is called so. */
    private const MANY = 500;

    /**
     * @param  int  $total  how many are called so
     * @return CursorPaginator<int, Part> `pieces` on each
     */
    public function page(string $typed, int $total, ?string $sort, ?string $after, int $size): CursorPaginator
    {
        $called = match (true) {
            $typed === '' => Part::query(),
            $total > self::MANY => Part::calledAmongAll($typed),
            default => Part::called($typed),
        };
        $page = (new SortedPages(self::ORDERS, 'parts.number'))->page(
            $called->select('parts.*'),
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
        return $typed === '' ? Tally::of('parts') : Part::countCalled($typed);
    }
}
