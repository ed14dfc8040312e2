<?php

namespace App\Kernel;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\HasMany;

/** A list that belongs to a row, kept in the order it was written. */
final class OrderedRows
{
    /**
     * Writes the list anew, in one statement.
     *
     * @template M of Model
     *
     * @param  HasMany<M, covariant Model>  $list
     * @param  array<int, array<string, mixed>>  $rows  columns by name
     */
    public static function write(HasMany $list, array $rows): void
    {
        $list->getQuery()->clone()->delete();
        $fixed = $list->make()->getAttributes();
        $list->getModel()->newQuery()->insert(
            array_map(
                fn (array $row, int $n) => $row + ['position' => $n] + $fixed,
                $rows,
                array_keys(array_values($rows)),
            ),
        );
        $list->getParent()->unsetRelations();
    }
}
