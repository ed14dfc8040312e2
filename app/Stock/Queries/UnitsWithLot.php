<?php

namespace App\Stock\Queries;

use App\Kernel\SortedPages;
use Illuminate\Contracts\Pagination\CursorPaginator;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\LazyCollection;

/** Which units carry a lot, and where they are. A recall is whole or says what it left out. */
final class UnitsWithLot
{
    private const CHUNK = 1000;

    private const ORDERS = ['fitted' => 'i.id', 'unit' => 'b.serial', 'place' => 'i.place'];

    /** @return CursorPaginator<int, \stdClass> in the order they were put in unless another is asked for */
    public function page(string $lot, ?string $sort, ?string $after, int $size): CursorPaginator
    {
        return (new SortedPages(self::ORDERS, 'i.id'))->page($this->named($lot)->reorder(), $sort, $after, $size);
    }

    /** @return LazyCollection<int, \stdClass> every place, never all in memory */
    public function all(string $lot): LazyCollection
    {
        return $this->named($lot)->reorder()->lazyById(self::CHUNK, 'i.id', 'id');
    }

    /** @return array{units: int, places: int, pieces: int} */
    public function totals(string $lot): array
    {
        $sum = $this->carried($lot)
            ->selectRaw(
                'COUNT(DISTINCT i.build_id) AS units, COUNT(*) AS places, COALESCE(SUM(i.count), 0) AS pieces',
            )
            ->first();

        return ['units' => (int) $sum?->units, 'places' => (int) $sum?->places, 'pieces' => (int) $sum?->pieces];
    }

    private function carried(string $lot): Builder
    {
        // Few lots share a name; by their keys the places are found in one walk of an index.
        return DB::table('installed_parts AS i')
            ->whereIn('i.lot_id', DB::table('stock_lots')->where('lot', $lot)->pluck('id'))
            ->whereNull('i.removed_at');
    }

    private function named(string $lot): Builder
    {
        return $this->carried($lot)
            ->join('parts AS p', 'p.id', '=', 'i.part_id')
            ->join('builds AS b', 'b.id', '=', 'i.build_id')
            ->join('units AS u', 'u.id', '=', 'b.unit_id')
            ->leftJoin('customers AS c', 'c.id', '=', 'b.customer_id')
            ->orderBy('i.id')
            ->select([
                'i.id',
                'p.number',
                'p.name AS part',
                'b.serial',
                'u.core_tag',
                'u.station',
                'i.place',
                'i.count',
                'c.name AS customer',
            ]);
    }
}
