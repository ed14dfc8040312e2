<?php

namespace App\Kernel\Ledger;

use App\Kernel\Record;
use Closure;
use Illuminate\Database\Eloquent\Builder;

/** A row of which every change is in the ledger, so that the ledger can say what the row must be. */
abstract class AccountedRecord extends Record
{
    protected function performInsert(Builder $query)
    {
        return $this->accounted(fn () => parent::performInsert($query), fn () => $this->getAttributes());
    }

    protected function performUpdate(Builder $query)
    {
        return $this->accounted(
            fn () => parent::performUpdate($query),
            fn () => array_intersect_key($this->getAttributes(), $this->getChanges()),
        );
    }

    protected function performDeleteOnModel()
    {
        $this->accounted(function (): bool {
            parent::performDeleteOnModel();

            return true;
        }, fn () => null);
    }

    /**
     * @param  Closure(): bool  $write
     * @param  Closure(): ?array<string, mixed>  $set  columns it wrote; null: the row is gone
     */
    private function accounted(Closure $write, Closure $set): bool
    {
        $ledger = app(Ledger::class);

        return $ledger->within(function () use ($ledger, $write, $set): bool {
            if (! $write()) {
                return false;
            }
            $columns = $set();
            if ($columns !== []) {
                $ledger->changed(new Change($this->getTable(), (int) $this->getKey(), $columns));
            }

            return true;
        });
    }
}
