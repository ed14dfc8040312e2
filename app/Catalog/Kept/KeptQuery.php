<?php

namespace App\Catalog\Kept;

use Illuminate\Database\Query\Builder;

/** A question about tables of the catalog; what was answered before is not asked of the database again. */
final class KeptQuery extends Builder
{
    /** Conditions that say all of themselves in values: no other table is looked at. */
    private const PLAIN = ['Basic', 'In', 'InRaw', 'NotIn', 'Null', 'NotNull'];

    /** @return array<mixed> */
    protected function runSelect()
    {
        return $this->isPlain()
            ? app(KeptCatalog::class)->rows($this->toSql(), $this->getBindings(), fn (): array => parent::runSelect())
            : parent::runSelect();
    }

    private function isPlain(): bool
    {
        return $this->lock === null &&
            $this->unions === null &&
            array_diff($this->tables(), KeptCatalog::TABLES) === [] &&
            array_filter($this->columns ?? [], fn (mixed $column): bool => ! is_string($column)) === [] &&
            array_diff(array_column($this->wheres, 'type'), self::PLAIN) === [] &&
            array_filter($this->getBindings(), fn (mixed $value): bool => ! is_scalar($value)) === [];
    }

    /** @return list<string> without the names they go by here */
    private function tables(): array
    {
        $tables = [$this->from, ...array_column($this->joins ?? [], 'table')];

        return array_map(fn (mixed $t): string => is_string($t) ? explode(' ', $t)[0] : '', $tables);
    }
}
