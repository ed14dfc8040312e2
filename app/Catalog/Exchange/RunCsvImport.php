<?php

namespace App\Catalog\Exchange;

use App\Catalog\Models\CsvImport;
use App\Kernel\Ledger\Ledger;
use App\Shop\Models\Person;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\DB;

/**
 * Reads an uploaded CSV file in chunks: once to check every line and count what would change, once more to write it in
 * one transaction. Progress goes over a connection of its own, so that it is seen before the transaction ends.
 */
final class RunCsvImport implements ShouldQueue
{
    use Queueable;

    private const CHUNK = 1000;

    private const SHOWN_ERRORS = 200;

    private const SHOWN_ROWS = 20;

    /** One attempt: a half-read file is marked failed, never started again by itself. */
    public int $tries = 1;

    public int $timeout = 1800;

    public function __construct(private readonly int $importId)
    {
        $this->onQueue('imports');
    }

    public function handle(CatalogStore $store, Ledger $ledger): void
    {
        $import = CsvImport::query()->find($this->importId);
        if ($import === null || ! in_array($import->state, ['checking', 'importing'], true)) {
            return;
        }
        try {
            if ($import->state === 'checking') {
                $this->check($import, $store);
            } else {
                Auth::setUser(Person::query()->findOrFail($import->started_by));
                DB::transaction(function () use ($import, $store, $ledger): void {
                    $counts = $this->write($import, $store);
                    $ledger->record(
                        'catalog',
                        'catalog.csv-imported',
                        ['kind' => $import->kind, 'file' => $import->filename] + $counts,
                    );
                });
                $import->update(['state' => 'done', 'done' => $import->total, 'ended_at' => now()]);
            }
        } catch (CsvRefusal $e) {
            $import
                ->refresh()
                ->update([
                    'state' => $e->getCode() === 1 ? 'cancelled' : 'refused',
                    'failure' => $e->getMessage(),
                    'ended_at' => now(),
                ]);
        }
    }

    public function failed(\Throwable $e): void
    {
        CsvImport::query()
            ->whereKey($this->importId)
            ->update([
                'state' => 'failed',
                'failure' => 'The import broke off; nothing was written.',
                'ended_at' => now(),
            ]);
    }

    private function check(CsvImport $import, CatalogStore $store): void
    {
        $kind = CsvKind::KINDS[$import->kind];
        $counts = ['new_rows' => 0, 'changed_rows' => 0, 'same_rows' => 0, 'error_rows' => 0];
        $errors = $preview = $seen = [];
        $wrong = function (int $line, string $detail) use (&$errors, &$counts): void {
            $counts['error_rows']++;
            count($errors) < self::SHOWN_ERRORS && ($errors[] = ['line' => $line, 'detail' => $detail]);
        };
        foreach ($this->chunks($import, $wrong, $seen) as $rows) {
            $compared = $store->compare($kind['table'], array_values($rows), $kind['key']);
            if ($import->kind === 'prices') {
                $compared['new'] = self::unpriced($rows, $compared['new'], $wrong);
            }
            $counts['new_rows'] += count($compared['new']);
            $counts['changed_rows'] += count($compared['changed']);
            $counts['same_rows'] += $compared['same'];
            $preview = array_slice([...$preview, ...$this->preview($compared)], 0, self::SHOWN_ROWS);
            $this->progress($import, array_sum($counts));
        }
        $total = array_sum($counts);
        if ($total === 0) {
            throw new CsvRefusal('The file names its columns but holds no line.');
        }
        $bad = $counts['error_rows'];
        $import->update(
            $counts + [
                'total' => $total,
                'done' => $total,
                'errors' => $errors,
                'preview' => $preview,
                'state' => $bad > 0 ? 'refused' : 'ready',
                'failure' => $bad > 0
                        ? "$bad of $total lines cannot be taken; mend them and send the file again."
                        : '',
            ],
        );
    }

    /**
     * A price is of a part that is there: what would be new is wrong.
     *
     * @param  array<int, array<string, mixed>>  $rows  by line
     * @param  list<array<string, mixed>>  $new
     * @param  \Closure(int, string): void  $wrong
     * @return array{}
     */
    private static function unpriced(array $rows, array $new, \Closure $wrong): array
    {
        foreach ($new as $row) {
            $wrong((int) array_search($row, $rows, true), "There is no part \"{$row['number']}\" to price.");
        }

        return [];
    }

    /**
     * @param  array{new: list<array<string, mixed>>, changed: list<array{row: array<string, mixed>, before: mixed}>,
     *     same: int}  $compared
     * @return list<array{change: string, row: array<string, mixed>, before: array<string, mixed>|null}>
     */
    private function preview(array $compared): array
    {
        $changed = array_map(fn (array $c) => [
            'change' => 'changed',
            'row' => $this->readable($c['row']),
            'before' => $this->readable(array_intersect_key((array) $c['before'], $c['row'])),
        ], array_slice($compared['changed'], 0, self::SHOWN_ROWS));
        $new = array_map(
            fn (array $row) => ['change' => 'new', 'row' => $this->readable($row), 'before' => null],
            array_slice($compared['new'], 0, self::SHOWN_ROWS),
        );

        return [...$changed, ...$new];
    }

    /** @return array{new: int, changed: int, same: int} */
    private function write(CsvImport $import, CatalogStore $store): array
    {
        $kind = CsvKind::KINDS[$import->kind];
        $counts = ['new' => 0, 'changed' => 0, 'same' => 0];
        $seen = [];
        $done = 0;
        $wrong = fn (int $line, string $detail) => throw new CsvRefusal(
            "Line $line no longer fits: $detail Nothing was written.",
        );
        foreach ($this->chunks($import, $wrong, $seen) as $rows) {
            $rows = array_values($rows);
            if ($import->kind === 'prices') {
                $rows = $this->whole($rows, $wrong);
            }
            foreach ($store->writeRows($kind['table'], $rows, $kind['key']) as $what => $n) {
                $counts[$what] += $n;
            }
            $this->progress($import, $done += count($rows));
        }

        return $counts;
    }

    /**
     * A price line is written as the whole part: an upsert needs every column that has no default.
     *
     * @param  list<array<string, mixed>>  $rows
     * @return list<array<string, mixed>>
     */
    private function whole(array $rows, callable $wrong): array
    {
        $parts = DB::table('parts')
            ->whereIn('number', array_column($rows, 'number'))
            ->get(['number', 'name', 'kind'])
            ->keyBy(fn ($p) => mb_strtolower($p->number));

        return array_map(
            fn (array $r) => $r +
                (isset($parts[mb_strtolower($r['number'])])
                    ? [
                        'name' => $parts[mb_strtolower($r['number'])]->name,
                        'kind' => $parts[mb_strtolower($r['number'])]->kind,
                    ]
                    : $wrong(0, "There is no part \"{$r['number']}\".")),
            $rows,
        );
    }

    /**
     * Checked rows of the table, codes turned into ids.
     *
     * @param  callable(int, string): void  $wrong
     * @param  array<string, true>  $seen  keys met so far, as short hashes
     * @return \Generator<int, array<int, array<string, mixed>>> line => row
     */
    private function chunks(CsvImport $import, callable $wrong, array &$seen): \Generator
    {
        $kind = CsvKind::KINDS[$import->kind];
        $file = new CsvFile($import->fullPath(), $kind['required'], $kind['optional']);
        $chunk = [];
        foreach ($file->rows() as $line => $fields) {
            try {
                $chunk[$line] = CsvKind::row($import->kind, $fields instanceof CsvRefusal ? throw $fields : $fields);
            } catch (CsvRefusal $e) {
                $wrong($line, $e->getMessage());

                continue;
            }
            if (count($chunk) === self::CHUNK) {
                yield $this->named($kind, $chunk, $wrong, $seen);
                $chunk = [];
            }
        }
        if ($chunk !== []) {
            yield $this->named($kind, $chunk, $wrong, $seen);
        }
    }

    /**
     * @param  array<string, mixed>  $kind
     * @param  array<int, array<string, mixed>>  $chunk
     * @param  callable(int, string): void  $wrong
     * @param  array<string, true>  $seen
     * @return array<int, array<string, mixed>>
     */
    private function named(array $kind, array $chunk, callable $wrong, array &$seen): array
    {
        foreach ($kind['names'] as $name => [$table, $column]) {
            $ids = array_change_key_case(
                CatalogMap::idsOf($table, $column, array_values(array_unique(array_column($chunk, $name)))),
            );
            foreach ($chunk as $line => $row) {
                $id = $ids[strtolower($row[$name])] ?? null;
                if ($id === null) {
                    $wrong($line, "There is no $name \"{$row[$name]}\".");
                    unset($chunk[$line]);
                } else {
                    unset($chunk[$line][$name]);
                    $chunk[$line]["{$name}_id"] = $id;
                }
            }
        }
        foreach ($chunk as $line => $row) {
            $hash = substr(
                md5(mb_strtolower(implode("\0", array_map(fn (string $k) => (string) $row[$k], $kind['key']))), true),
                0,
                8,
            );
            if (isset($seen[$hash])) {
                $wrong($line, 'This entry stands in the file twice.');
                unset($chunk[$line]);
            }
            $seen[$hash] = true;
        }

        return $chunk;
    }

    private function progress(CsvImport $import, int $done): void
    {
        $row = DB::connection(config('yard.progress_connection'))->table('csv_imports')->where('id', $import->id);
        (clone $row)->update(['done' => $done]);
        if ((clone $row)->value('cancel_requested')) {
            throw new CsvRefusal('Cancelled; nothing was written.', 1);
        }
    }

    /**
     * @param  array<string, mixed>  $row
     * @return array<string, string>
     */
    private function readable(array $row): array
    {
        return array_map(fn (mixed $v) => is_float($v) ? (string) json_encode($v) : (string) $v, $row);
    }
}
