<?php

namespace App\Kernel\Ledger;

use Illuminate\Database\Connection;

/**
 * What the events say every row of the yard must be: their changes laid one over the other, in the order they happened.
 * Kept in a temporary table, so that ten years of events do not need ten years of memory.
 */
final class RebuiltState
{
    private const TABLE = 'rebuilt_rows';

    private const EVENTS_AT_ONCE = 1000;

    private const ROWS_AT_ONCE = 1000;

    public function __construct(private readonly Connection $db)
    {
    }

    /**
     * @param  ?callable(int): void  $progress  events read
     * @return int events with changes
     */
    public function fold(?callable $progress = null): int
    {
        $this->db->statement('DROP TEMPORARY TABLE IF EXISTS '.self::TABLE);
        $this->db->statement(
            'CREATE TEMPORARY TABLE '.self::TABLE.' (tbl VARCHAR(64) CHARACTER SET ascii, id BIGINT UNSIGNED, '
                .'unit_id BIGINT UNSIGNED NULL, columns LONGTEXT NOT NULL, PRIMARY KEY (tbl, id))',
        );
        [$last, $events] = [0, 0];
        do {
            $batch = $this->db
                ->table('ledger')
                ->where('id', '>', $last)
                ->orderBy('id')
                ->limit(self::EVENTS_AT_ONCE)
                ->get(['id', 'unit_id', 'changes']);
            $this->layOver($batch->whereNotNull('changes')->all());
            $last = $batch->last()->id ?? $last;
            $events += $batch->count();
            $progress !== null && $progress($events);
        } while ($batch->count() === self::EVENTS_AT_ONCE);

        return $events;
    }

    /**
     * @return \Generator<int, array{rebuilt: array<int, RebuiltRow>, actual: array<int, array<string, mixed>>}> rows of
     *     one range of keys, by key
     */
    public function besideActual(string $table): \Generator
    {
        $from = 0;
        do {
            $actual = $this->db
                ->table($table)
                ->where('id', '>', $from)
                ->orderBy('id')
                ->limit(self::ROWS_AT_ONCE)
                ->get();
            $end = $actual->count() < self::ROWS_AT_ONCE;
            $to = $end ? PHP_INT_MAX : (int) $actual->max('id');
            $rebuilt = $this->db
                ->table(self::TABLE)
                ->where('tbl', $table)
                ->where('id', '>', $from)
                ->where('id', '<=', $to)
                ->orderBy('id')
                ->get();
            yield [
                'rebuilt' => $rebuilt->keyBy('id')->map(RebuiltRow::read(...))->all(),
                'actual' => $actual->keyBy('id')->map(fn (\stdClass $r) => (array) $r)->all(),
            ];
            $from = $to;
        } while (! $end);
    }

    /** @param  array<int, \stdClass>  $events */
    private function layOver(array $events): void
    {
        $changes = [];
        foreach ($events as $event) {
            foreach (json_decode($event->changes, true, flags: JSON_THROW_ON_ERROR) as [$table, $id, $set]) {
                $changes[$table][$id][] = [$event->unit_id, $set];
            }
        }
        foreach ($changes as $table => $ofRows) {
            $known = $this->db->table(self::TABLE)->where('tbl', $table);
            $rows = $known
                ->whereIn('id', array_keys($ofRows))
                ->get()
                ->keyBy('id')
                ->map(RebuiltRow::read(...))
                ->all();
            foreach ($ofRows as $id => $steps) {
                foreach ($steps as [$unit, $set]) {
                    $before = $rows[$id] ?? new RebuiltRow(null, []);
                    $rows[$id] = $set === null ? null : new RebuiltRow($unit ?? $before->unit, $set + $before->columns);
                }
            }
            $this->keep($table, $rows);
        }
    }

    /** @param  array<int, RebuiltRow|null>  $rows  null: gone */
    private function keep(string $table, array $rows): void
    {
        $table_ = $this->db->table(self::TABLE);
        $gone = array_keys(array_filter($rows, is_null(...)));
        $table_->clone()->where('tbl', $table)->whereIn('id', $gone)->delete();
        $left = array_filter($rows);
        $table_->upsert(
            array_map(
                fn (RebuiltRow $row, int $id) => [
                    'tbl' => $table,
                    'id' => $id,
                    'unit_id' => $row->unit,
                    'columns' => json_encode($row->columns, JSON_THROW_ON_ERROR | JSON_PRESERVE_ZERO_FRACTION),
                ],
                $left,
                array_keys($left),
            ),
            ['tbl', 'id'],
            ['unit_id', 'columns'],
        );
    }
}
