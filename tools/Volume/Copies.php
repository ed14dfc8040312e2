<?php

namespace Tools\Volume;

use Illuminate\Database\Connection;

/**
 * Copies the rows of finished units many times, every key shifted by its table's own stride, so that each copy is as
 * whole as what it was copied from: rows of a table that hang on units, builds, runs or returns come along by their
 * foreign keys.
 */
final class Copies
{
    /** In this order; what hangs on what is read from the schema. */
    private const TABLES = [
        'units',
        'builds',
        'intake_parts',
        'credit_lines',
        'trouble_codes',
        'damage_marks',
        'clue_answers',
        'identifications',
        'order_options',
        'operations',
        'proofs',
        'findings',
        'finding_plates',
        'pack_fits',
        'pack_fit_picks',
        'installed_parts',
        'measurements',
        'dyno_runs',
        'run_checks',
        'sign_offs',
        'shipments',
        'commissionings',
    ];

    /** Copied by the process that reckons the chains, once it is done with them: two cores, as much for each. */
    private const BESIDE = ['run_checks', 'sign_offs', 'shipments', 'commissionings'];

    /** Written down one by one in the last few years only; before that, what decides was. */
    private const LATELY = [
        'operations' => '1',
        'proofs' => '1',
        'finding_plates' => '1',
        'findings' => "t.disposition = 'reuse'",
        'pack_fit_picks' => '1',
        'run_checks' => '1',
        'measurements' => "t.kind NOT IN ('pack', 'end-play')",
    ];

    public const LATELY_DAYS = 520;

    private const LEFT_OUT = ['return_id', 'parent_build_id', 'origin_unit_id', 'second_build_id'];

    /** What no two may share, from the stride of the table and the day the copy lies back. */
    private const NAMES = [
        'units.core_tag' => "CONCAT('K-', t.id + c.seq * %1\$d)",
        'units.vin' => 'IF(t.vin IS NULL, NULL, CONCAT(LEFT(t.vin, 11), LPAD(MOD(t.id + c.seq * %1$d, 1000000), 6, '
            ."'0')))",
        'builds.serial' => "CONCAT('VY-', DATE_FORMAT(t.created_at - %2\$s, '%%y'), '-', LPAD(t.id + c.seq * %1\$d, 9, "
            ."'0'))",
    ];

    /** Copies of one statement: a few thousand units. */
    private const AT_ONCE = 200;

    /** @var array<string, int> rows a copy of a table moves on by */
    private array $stride = [];

    /** @var array<string, list<int>> what is copied, by the column that names it */
    private readonly array $from;

    /** @param  list<int>  $units  finished units of one generation */
    public function __construct(
        private Connection $db,
        array $units,
        private readonly int $customers,
        private readonly int $firstCustomer,
        private readonly int $days,
        private readonly Lots $lots,
    ) {
        $builds = self::ids($db, 'builds', 'unit_id', $units);
        $this->from = [
            'id' => $units,
            'unit_id' => $units,
            'build_id' => $builds,
            'run_id' => self::ids($db, 'dyno_runs', 'build_id', $builds),
            'finding_id' => self::ids($db, 'findings', 'unit_id', $units),
            'pack_fit_id' => self::ids($db, 'pack_fits', 'build_id', $builds),
        ];
        foreach (self::TABLES as $table) {
            $this->stride[$table] = 1 + (int) $db->table($table)->max('id');
        }
    }

    /**
     * @param  list<int>  $in
     * @return list<int>
     */
    private static function ids(Connection $db, string $table, string $column, array $in): array
    {
        return $db->table($table)->whereIn($column, $in)->pluck('id')->map(intval(...))->all();
    }

    /** Written through another connection from here on. */
    public function on(Connection $db): self
    {
        $this->db = $db;

        return $this;
    }

    public function unit(int $template, int $copy): int
    {
        return $template + $copy * $this->stride['units'];
    }

    public function tag(int $template, int $copy): string
    {
        return 'K-'.$this->unit($template, $copy);
    }

    public function build(int $template, int $copy): int
    {
        return $template + $copy * $this->stride['builds'];
    }

    /** The serial a copy of a build got, as `NAMES` writes it. */
    public function serial(int $template, int $copy, string $created): string
    {
        $year = gmdate('y', (int) strtotime(substr($created, 0, 19).' UTC') - $this->daysBack($copy) * 86400);

        return sprintf('VY-%s-%09d', $year, $this->build($template, $copy));
    }

    public function daysBack(int $copy): int
    {
        return $copy % $this->days;
    }

    public function customer(int $copy): int
    {
        return $this->firstCustomer + $copy % $this->customers;
    }

    /** @param  callable(int): void  $progress  copies done */
    public function make(int $copies, callable $progress): void
    {
        $this->copy(array_values(array_diff(self::TABLES, self::BESIDE)), $copies, $progress);
    }

    /** @param  callable(int): void  $progress  copies done */
    public function makeBeside(int $copies, callable $progress): void
    {
        $this->copy(self::BESIDE, $copies, $progress);
    }

    /**
     * @param  list<string>  $tables
     * @param  callable(int): void  $progress
     */
    private function copy(array $tables, int $copies, callable $progress): void
    {
        $columns = $this->columns();
        for ($from = 1; $from <= $copies; $from += self::AT_ONCE) {
            $to = min($copies, $from + self::AT_ONCE - 1);
            foreach ($tables as $table) {
                $this->db->statement($this->statement($table, $columns[$table], $from, $to));
            }
            $progress($to);
        }
    }

    /** @param  array<string, string>  $columns  name => type */
    private function statement(string $table, array $columns, int $from, int $to): string
    {
        $values = array_map(
            fn (string $column) => $this->value($table, $column, $columns[$column]),
            array_keys($columns),
        );
        $key = current(array_filter(
            ['finding_id', 'pack_fit_id', 'run_id', 'build_id', 'unit_id'],
            fn (string $c) => isset($columns[$c]) && $table !== 'units',
        )) ?: 'id';
        $rows = implode(', ', $this->from[$key]);

        $late = self::LATELY[$table] ?? null;
        $where = $late === null ? '' : " WHERE NOT ($late) OR MOD(c.seq, $this->days) < ".self::LATELY_DAYS;

        return "INSERT INTO `$table` (`".implode('`, `', array_keys($columns)).'`) SELECT '.implode(', ', $values).
            " FROM (SELECT * FROM `$table` t WHERE t.`$key` IN ($rows)) t JOIN seq_{$from}_to_{$to} c$where";
    }

    private function value(string $table, string $column, string $type): string
    {
        $keyOf = ['id' => $table, 'unit_id' => 'units', 'run_id' => 'dyno_runs', 'build_id' => 'builds',
            'current_build_id' => 'builds', 'finding_id' => 'findings', 'pack_fit_id' => 'pack_fits'];
        if (isset($keyOf[$column])) {
            return "t.`$column` + c.seq * {$this->stride[$keyOf[$column]]}";
        }
        if ($column === 'lot_id') {
            return "IF(t.lot_id IS NULL, NULL, {$this->lots->of('t.lot_id', 'c.seq')})";
        }
        $day = "INTERVAL MOD(c.seq, $this->days) DAY";

        return match (true) {
            in_array($column, self::LEFT_OUT, true) => 'NULL',
            $column === 'customer_id' => 'IF(t.customer_id IS NULL, NULL, '.
                "$this->firstCustomer + MOD(c.seq, $this->customers))",
            isset(self::NAMES["$table.$column"]) => sprintf(self::NAMES["$table.$column"], $this->stride[$table], $day),
            in_array($type, ['date', 'datetime'], true) => "t.`$column` - $day",
            default => "t.`$column`",
        };
    }

    /** @return array<string, array<string, string>> table => column => type, those that are written */
    private function columns(): array
    {
        $columns = [];
        $rows = $this->db
            ->table('information_schema.columns')
            ->where('table_schema', $this->db->getDatabaseName())
            ->whereIn('table_name', self::TABLES)
            ->where('extra', 'not like', '%GENERATED%')
            ->orderBy('ordinal_position')
            ->get(['table_name AS t', 'column_name AS c', 'data_type AS y']);
        foreach ($rows as $row) {
            $columns[$row->t][$row->c] = $row->y;
        }

        return $columns;
    }
}
