<?php

namespace App\Kernel\Ledger;

use App\Kernel\Papers;
use Illuminate\Support\Facades\DB;

/** Holds every row and file against what the events say it must be. */
final class VerifyState
{
    /** Differences told one by one. */
    private const TOLD = 200;

    /** Columns of a row that name a kept file, below the shop's own folder, and its fingerprint. */
    private const FILES = ['path' => 'sha256', 'trace_path' => 'trace_sha256'];

    /** @var list<array{unit: ?int, where: string, what: string}> */
    private array $told = [];

    /** @var array<string, array{?int, string}> paper => unit and row that first asked for it */
    private array $papers = [];

    private int $found = 0;

    private int $rows = 0;

    /**
     * @param  ?callable(string): void  $progress
     * @return array{rows: int, found: int, differences: list<array{unit: ?int, where: string, what: string}>} the first
     *     differences, and how many there are
     */
    public function verify(?callable $progress = null): array
    {
        [$this->told, $this->papers, $this->found, $this->rows] = [[], [], 0, 0];
        $state = new RebuiltState(DB::connection());
        $state->fold(function (int $events) use ($progress): void {
            if ($progress !== null && $events % 50_000 === 0) {
                $progress("$events events read");
            }
        });
        foreach (AccountedTables::ALL as $table) {
            $types = null;
            foreach ($state->besideActual($table) as ['rebuilt' => $rebuilt, 'actual' => $actual]) {
                foreach (array_keys($rebuilt + $actual) as $id) {
                    $types ??= ColumnTypes::of(DB::connection(), $table);
                    $this->rows++;
                    $this->compare($types, "$table $id", $rebuilt[$id] ?? null, $actual[$id] ?? null);
                }
            }
            $progress !== null && $progress("$table compared");
        }

        $this->papers();

        return ['rows' => $this->rows, 'found' => $this->found, 'differences' => $this->told];
    }

    /** @param  array<string, mixed>|null  $actual */
    private function compare(ColumnTypes $types, string $where, ?RebuiltRow $must, ?array $actual): void
    {
        if ($must === null) {
            $this->tell(null, $where, 'no event led to this row');
        } elseif ($actual === null) {
            $this->tell($must->unit, $where, 'the events lead to this row, but it is gone');
        } else {
            foreach ($types->differences($must->columns, $actual) as $column => [$says, $is]) {
                $told = sprintf('%s is %s, by the events %s', $column, self::shown($is), self::shown($says));
                $this->tell($must->unit, $where, $told);
            }
            $this->files($must, $where);
            foreach (array_merge(...array_map(Papers::namedIn(...), array_values($must->columns))) as $paper) {
                $this->papers[$paper] ??= [$must->unit, $where];
            }
        }
    }

    private function files(RebuiltRow $must, string $where): void
    {
        foreach (self::FILES as $path => $sha) {
            if (! isset($must->columns[$path], $must->columns[$sha])) {
                continue;
            }
            $file = config('yard.state')."/app/{$must->columns[$path]}";
            // What is kept packed is what it unpacks to.
            $file = is_file($file) || ! is_file("$file.gz") ? $file : "compress.zlib://$file.gz";
            if (! str_starts_with($file, 'compress.') && ! is_file($file)) {
                $this->tell($must->unit, $where, "its file {$must->columns[$path]} is gone");
            } elseif (hash_file('sha256', $file) !== $must->columns[$sha]) {
                $this->tell($must->unit, $where, "its file {$must->columns[$path]} was altered");
            }
        }
    }

    /** What rows share stands once, under the fingerprint of its own text. */
    private function papers(): void
    {
        foreach ($this->papers as $sha => [$unit, $where]) {
            $is = Papers::fingerprint($sha);
            if ($is !== $sha) {
                $this->tell($unit, $where, $is === null ? 'what it shares is gone' : 'what it shares was altered');
            }
        }
    }

    private function tell(?int $unit, string $where, string $what): void
    {
        if (++$this->found <= self::TOLD) {
            $this->told[] = ['unit' => $unit, 'where' => $where, 'what' => $what];
        }
    }

    private static function shown(mixed $value): string
    {
        $text = is_scalar($value) ? (string) $value : json_encode($value, JSON_THROW_ON_ERROR);

        return mb_strlen($text) > 60 ? '"'.mb_substr($text, 0, 57).'..."' : "\"$text\"";
    }
}
