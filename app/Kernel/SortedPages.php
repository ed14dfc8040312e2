<?php

namespace App\Kernel;

use Illuminate\Contracts\Pagination\CursorPaginator;
use Illuminate\Database\Eloquent\Builder as Rows;
use Illuminate\Database\Query\Builder;
use Illuminate\Pagination\Cursor;

/**
 * A list the database sorts, one page at a time: by the key of the last row seen, never by counting rows off.
 * `sort` is a column's name as the reader knows it; a minus before it turns the order round.
 */
final class SortedPages
{
    /**
     * @param  array<string, string>  $columns  name for the reader => column, never null, the first is the usual order
     * @param  string  $key  unique; settles what is equal
     */
    public function __construct(private readonly array $columns, private readonly string $key)
    {
    }

    /**
     * @template TQuery of Rows<*>|Builder
     *
     * @param  TQuery  $query
     * @return CursorPaginator<int, mixed>
     *
     * @throws Refusal for a column the list is not sorted by, or a place that is not in this list
     */
    public function page(Rows|Builder $query, ?string $sort, ?string $after, int $size): CursorPaginator
    {
        $sort ??= (string) array_key_first($this->columns);
        $column = $this->columns[ltrim($sort, '-')] ?? null;
        if ($column === null) {
            $all = implode(', ', array_keys($this->columns)).' (a minus before it turns it round)';
            throw Refusal::at('/sort', "This list is sorted by $all, not by \"$sort\".");
        }
        $direction = str_starts_with($sort, '-') ? 'desc' : 'asc';
        $query->orderBy($column, $direction);
        if ($column !== $this->key) {
            $query->orderBy($this->key, $direction);
        }

        return $query->cursorPaginate($size, cursor: $this->place($after, $column));
    }

    /** @param  CursorPaginator<int, mixed>  $page */
    public static function after(CursorPaginator $page): ?string
    {
        return $page->nextCursor()?->encode();
    }

    private function place(?string $after, string $column): ?Cursor
    {
        if ($after === null) {
            return null;
        }
        $told = json_decode((string) base64_decode(strtr($after, '-_', '+/'), true), true);
        $whole = is_array($told) && array_diff([$column, $this->key, '_pointsToNextItems'], array_keys($told)) === [];

        return ($whole ? Cursor::fromEncoded($after) : null) ??
            throw Refusal::at('/after', 'That is no place in this list; begin at its first page.');
    }
}
