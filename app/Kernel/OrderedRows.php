<?php

namespace App\Kernel;

use App\Kernel\Ledger\Change;
use App\Kernel\Ledger\Ledger;
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
     * @param  bool  $fresh  the row was made just now and has no list yet
     */
    public static function write(HasMany $list, array $rows, bool $fresh = false): void
    {
        app(Ledger::class)->within(function () use ($list, $rows, $fresh): void {
            $fresh || self::clear($list);
            $fixed = $list->make()->getAttributes();
            $rows = array_map(
                fn (array $row, int $n) => $row + ['position' => $n] + $fixed,
                array_values($rows),
                array_keys(array_values($rows)),
            );
            if ($rows !== []) {
                $model = $list->getModel();
                $model->newQuery()->insert($rows);
                // Rows of one statement have keys in a row, from the first one's.
                $first = (int) $model->getConnection()->getPdo()->lastInsertId();
                foreach ($rows as $n => $row) {
                    app(Ledger::class)->changed(new Change($model->getTable(), $first + $n, $row));
                }
            }
        });
        $list->getParent()->unsetRelations();
    }

    /**
     * @template M of Model
     *
     * @param  HasMany<M, covariant Model>  $list  or the part of it that goes
     */
    public static function clear(HasMany $list): void
    {
        app(Ledger::class)->within(function () use ($list): void {
            $gone = $list->getQuery()->clone()->pluck('id');
            if ($gone->isNotEmpty()) {
                $list->getModel()->newQuery()->whereIn('id', $gone)->delete();
            }
            foreach ($gone as $id) {
                app(Ledger::class)->changed(new Change($list->getModel()->getTable(), (int) $id, null));
            }
        });
    }
}
