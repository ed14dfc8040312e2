<?php

namespace App\Catalog\Kept;

use App\Catalog\Models\Family;
use App\Kernel\Ledger\Ledger;
use Closure;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\Cache;

/**
 * Rows of the catalog that were read before, kept for as long as nothing is written in its stream of the ledger: each
 * request asks for the head of that stream once, and for the rows no more. Only while a request is served; commands
 * and workers read the tables themselves.
 */
final class KeptCatalog
{
    /** Tables that change with an event in the stream of the catalog, and with nothing else. */
    public const TABLES = [
        'families',
        'variants',
        'specs',
        'options',
        'packages',
        'vocabularies',
        'job_types',
        'vehicles',
        'applications',
        'conversions',
        'parts',
    ];

    private const KEPT_S = 86400;

    private bool $on = false;

    private bool $changed = false;

    private bool $watching = false;

    private ?string $head = null;

    public function begin(): void
    {
        $this->watch();
        [$this->on, $this->head] = [true, null];
    }

    public function end(): void
    {
        $this->on = false;
    }

    /** Whoever writes to the catalog reads from now on what stands in the tables. */
    public function watch(): void
    {
        if ($this->watching) {
            return;
        }
        $this->watching = true;
        $write = '/^(?:insert|update|delete|replace|truncate)\b[^`]*`(?:'.implode('|', self::TABLES).')`/i';
        (new Family())->getConnection()->beforeExecuting(function (string $sql) use ($write): void {
            $this->changed = $this->changed || preg_match($write, $sql) === 1;
        });
    }

    /**
     * @param  array<mixed>  $bindings
     * @param  Closure(): array<mixed>  $read
     * @return array<mixed> rows as the database gives them
     */
    public function rows(string $sql, array $bindings, Closure $read): array
    {
        $plain = fn (): array => array_map(fn (mixed $row): array => (array) $row, $read());

        return array_map(fn (array $row): object => (object) $row, $this->kept([$sql, $bindings], $plain));
    }

    /**
     * Whatever follows from the catalog and from what is named; nothing else may go into it.
     *
     * @param  array<mixed>  $from  all else it follows from
     * @param  Closure(): array<mixed>  $reckon
     * @return array<mixed>
     */
    public function kept(array $from, Closure $reckon): array
    {
        $head = $this->on && ! $this->changed ? $this->head() : '';

        if ($head === '') {
            return $reckon();
        }
        $key = 'catalog:'.hash('xxh128', serialize([$head, $from]));
        $kept = Cache::get($key);
        if (is_array($kept)) {
            return $kept;
        }
        $found = $reckon();
        // A full disk keeps nothing; what was asked is answered all the same.
        rescue(fn () => Cache::put($key, $found, self::KEPT_S), report: false);

        return $found;
    }

    /** @return array<mixed> rows of a question about these tables, and no others */
    public function answers(Builder $question): array
    {
        return $this->rows($question->toSql(), $question->getBindings(), fn (): array => $question->get()->all());
    }

    /** The hash of the last event of the catalog; empty where there is none. */
    private function head(): string
    {
        return $this->head ??= Ledger::headOf('catalog');
    }
}
