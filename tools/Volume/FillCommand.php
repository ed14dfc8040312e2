<?php

namespace Tools\Volume;

use App\Insight\Queries\FieldKeys;
use App\Insight\Queries\Sales;
use Closure;
use Illuminate\Console\Command;
use Illuminate\Database\Connection;
use Illuminate\Support\Facades\DB;

/** Fills a shop with ten believable years, grown from what its finished units went through. */
final class FillCommand extends Command
{
    protected $signature = 'volume:fill {--units=200000} {--customers=3000} {--parts=50000}';

    protected $description = 'Fill the shop of this instance with ten years of finished units';

    private const UNCHECKED = 'SET foreign_key_checks = 0, unique_checks = 0, check_constraint_checks = 0';

    private const DAYS = 3650;

    /** Of a hundred units three come back. */
    private const RETURNS = 3;

    private const NAMES = ['Alder', 'Birch', 'Cedar', 'Dorn', 'Elm', 'Fir', 'Gorse', 'Hazel', 'Ivy', 'Juniper'];

    private const WORDS = ['Seal', 'Bolt', 'Bracket', 'Hose', 'Sensor', 'Cover', 'Harness'];

    private const TRADES = ['Drivetrain', 'Garage', 'Fleet', 'Motors', 'Workshop', 'Haulage'];

    public function handle(): int
    {
        $db = DB::connection('owner');
        $db->disableQueryLog();
        $db->unprepared(self::UNCHECKED);
        $templates = $this->templates($db);
        if ($templates === []) {
            $this->error('This shop has no finished unit to grow from; load the demo first.');

            return 1;
        }
        $began = microtime(true);
        $this->stock($db);
        $firstCustomer = $this->customers($db);
        $wanted = (int) ceil((int) $this->option('units') / count($templates));
        $lots = new Lots($db, $templates, $wanted);
        $copies = new Copies($db, $templates, (int) $this->option('customers'), $firstCustomer, self::DAYS, $lots);
        // Two cores: the chains are reckoned beside the copying, from the templates and by formula.
        $chains = $this->beside(function (Connection $own) use ($copies, $templates, $wanted, $began): void {
            $this->ledger($own, $copies, $templates, $wanted, $began);
            $copies->on($own)->makeBeside($wanted, fn (int $n) => null);
            $this->tell($began, $wanted * count($templates), 'papers copied');
        });
        $db = DB::connection('owner');
        $copies->on($db)->make($wanted, function (int $n) use ($began, $templates): void {
            $n % 2000 === 0 && $this->tell($began, $n * count($templates), 'units');
        });
        $this->tell($began, $wanted * count($templates), 'units copied');
        $this->debts($db, $copies, $templates, $wanted);
        $this->returns($db, $copies, $templates, $wanted);
        $this->tell($began, $db->table('returns')->count(), 'returns');
        if (! $chains()) {
            $this->error('The ledger of the copies could not be written.');

            return 1;
        }
        FieldKeys::recount($db);
        Sales::recount($db);
        $db->unprepared('SET foreign_key_checks = 1, unique_checks = 1, check_constraint_checks = 1');
        $db->select(
            'ANALYZE TABLE units, builds, ledger, measurements, installed_parts, returns, core_debts, parts, '.
                'stock_lots',
        );
        $this->tell($began, $db->table('units')->count(), 'units in all');

        return 0;
    }

    /**
     * Work in a process of its own, with a connection of its own.
     *
     * @param  Closure(Connection): void  $work
     * @return Closure(): bool  waits for its end and says whether it went well
     */
    private function beside(Closure $work): Closure
    {
        DB::purge('owner');
        $child = pcntl_fork();
        if ($child === 0) {
            $own = DB::connection('owner');
            $own->disableQueryLog();
            $own->unprepared(self::UNCHECKED);
            $work($own);
            exit(0);
        }
        DB::connection('owner')->unprepared(self::UNCHECKED);

        return function () use ($child): bool {
            pcntl_waitpid($child, $status);

            return $child > 0 && pcntl_wexitstatus($status) === 0;
        };
    }

    /** @return list<int> units that went the whole way once */
    private function templates(Connection $db): array
    {
        return $db
            ->table('units AS u')
            ->join('builds AS b', 'b.id', '=', 'u.current_build_id')
            ->where('u.station', 'field')
            ->where('u.core_tag', 'like', 'C-%')
            ->where('b.generation', 1)
            ->whereExists(
                fn ($q) => $q
                    ->from('dyno_runs AS r')
                    ->whereColumn('r.build_id', 'b.id')
                    ->where('r.verdict', 'pass'),
            )
            ->orderBy('u.id')
            ->pluck('u.id')
            ->map(intval(...))
            ->all();
    }

    /** Parts nobody builds with yet, each with a lot. */
    private function stock(Connection $db): void
    {
        $have = (int) $db->table('parts')->max('id');
        $words = "'".implode("', '", self::WORDS)."'";
        $parts = (int) $this->option('parts');
        $columns = $this->columns($db, 'parts');
        $values = array_map(
            fn (string $c) => match ($c) {
                'id' => "$have + c.seq",
                'number' => "CONCAT('Q-', LPAD($have + c.seq, 6, '0'))",
                'aliases' => "'[]'",
                // One in eight is what units are built of; the rest is what a shop keeps besides.
                'name' => "IF(MOD(c.seq, 8) = 0, t.name, CONCAT(ELT(1 + MOD(c.seq, 7), $words), ' ', c.seq))",
                default => "t.`$c`",
            },
            $columns,
        );
        $db->statement(
            'INSERT INTO parts (`'.implode('`,`', $columns).'`) SELECT '.implode(', ', $values).
                " FROM seq_1_to_$parts c JOIN (SELECT *, ROW_NUMBER() OVER (ORDER BY id) - 1 AS n FROM parts WHERE ".
                "id <= $have) t ON t.n = MOD(c.seq, (SELECT COUNT(*) FROM parts WHERE id <= $have))",
        );
        $db->statement(
            "INSERT INTO stock_lots (part_id, lot, quantity, supplier, place, received_on) SELECT $have + c.seq, ".
                "CONCAT('LQ-', $have + c.seq), MOD(c.seq * 7, 40), 'Grown', CONCAT('S', MOD(c.seq, 90)), ".
                "CURRENT_DATE - INTERVAL MOD(c.seq, 900) DAY FROM seq_1_to_$parts c",
        );
    }

    private function customers(Connection $db): int
    {
        $first = 1 + (int) $db->table('customers')->max('id');
        $rows = [];
        for ($i = 0; $i < (int) $this->option('customers'); $i++) {
            $name = self::NAMES[$i % 10].' '.self::NAMES[intdiv($i, 10) % 10].' '.self::TRADES[$i % 6].' '.$i;
            $id = $first + $i;
            $rows[] = ['id' => $id, 'code' => "GR-$id", 'name' => $name, 'kind' => 'workshop', 'city' => 'Anmouth'];
        }
        foreach (array_chunk($rows, 1000) as $chunk) {
            $db->table('customers')->insert($chunk);
        }

        return $first;
    }

    /**
     * An exchange unit is owed a core for a month; the customer's next one settles it.
     *
     * @param  list<int>  $templates
     */
    private function debts(Connection $db, Copies $copies, array $templates, int $wanted): void
    {
        $perCopy = $copies->unit(0, 1);
        $perBuild = $copies->build(0, 1);
        $in = implode(',', $templates);
        $days = self::DAYS;
        $customer = "{$copies->customer(0)} + MOD(c.seq, {$this->option('customers')})";
        $settled = "c.seq < $wanted AND MOD(c.seq, 50) > 0";
        $db->statement(
            'INSERT INTO core_debts (customer_id, build_id, family_id, core_charge, charged_on, due_on, '.
                "settled_by_unit_id, settled_at) SELECT $customer, b.id + c.seq * $perBuild, u.family_id, 480, ".
                "DATE(u.received_at) + INTERVAL 10 DAY - INTERVAL MOD(c.seq, $days) DAY, ".
                "DATE(u.received_at) + INTERVAL 40 DAY - INTERVAL MOD(c.seq, $days) DAY, ".
                "IF($settled, u.id + (c.seq + 1) * $perCopy, NULL), ".
                "IF($settled, u.received_at + INTERVAL 25 DAY - INTERVAL MOD(c.seq, $days) DAY, NULL) ".
                "FROM seq_1_to_$wanted c JOIN units u ON u.id IN ($in) JOIN builds b ON b.unit_id = u.id ".
                "WHERE u.ownership = 'exchange'",
        );
    }

    /** @param  list<int>  $templates */
    private function returns(Connection $db, Copies $copies, array $templates, int $wanted): void
    {
        $rows = [];
        $by = (int) $db->table('people')->where('role', 'returns')->value('id');
        $causes = ['installation', 'part', 'workmanship', 'abuse', 'wear', 'vehicle'];
        foreach (self::returned($templates, $wanted) as [$template, $copy]) {
            $day = now()->subDays($copies->daysBack($copy));
            $build = (int) $db->table('builds')->where('unit_id', $template)->value('id');
            $rows[] = [
                'number' => sprintf('RV-%07d', $copies->unit($template, $copy)),
                'build_id' => $copies->build($build, $copy),
                'unit_id' => $copies->unit($template, $copy),
                'complaint' => 'Slips when hot',
                'installed_on' => $day->copy()->subDays(90)->format('Y-m-d'),
                'failed_on' => $day->format('Y-m-d'),
                'verdict' => $causes[$copy % 6],
                'verdict_note' => '',
                'cost_split' => '{"shop":100}',
                'ranking' => '[]',
                'weights' => '{}',
                'verdict_by' => $by,
                'verdict_at' => $day,
                'opened_by' => $by,
                'opened_at' => $day,
                'version' => 2,
            ];
        }
        foreach (array_chunk($rows, 1000) as $chunk) {
            $db->table('returns')->insert($chunk);
        }
    }

    /**
     * @param  list<int>  $templates
     * @return \Generator<array{int, int}> template and copy of each unit that came back
     */
    private static function returned(array $templates, int $wanted): \Generator
    {
        for ($copy = 1; $copy <= $wanted; $copy++) {
            foreach ($templates as $i => $template) {
                if (($copy * 37 + $i * 11) % 100 < self::RETURNS) {
                    yield [$template, $copy];
                }
            }
        }
    }

    /** @param  list<int>  $templates */
    private function ledger(Connection $db, Copies $copies, array $templates, int $wanted, float $began): void
    {
        $chains = new Chains($db, $templates);
        $back = [];
        foreach (self::returned($templates, $wanted) as [$template, $copy]) {
            $back["$template:$copy"] = true;
        }
        $builds = $db->table('builds')->whereIn('unit_id', $templates)->get(['id', 'unit_id', 'created_at']);
        for ($copy = 1; $copy <= $wanted; $copy++) {
            foreach ($builds as $build) {
                $template = (int) $build->unit_id;
                $came = isset($back["$template:$copy"])
                    ? [
                        ['kind' => 'return.opened', 'payload' => ['complaint' => 'Slips when hot']],
                        ['kind' => 'return.decided', 'payload' => ['verdict' => 'part']],
                    ]
                    : [];
                $chains->write(
                    $template,
                    $copies->unit($template, $copy),
                    $copies->tag($template, $copy),
                    $copies->serial((int) $build->id, $copy, $build->created_at),
                    daysBack: $copies->daysBack($copy),
                    more: $came,
                );
            }
            $copy % 2000 === 0 && $this->tell($began, $chains->written, 'events');
        }
        $chains->flush();
        $this->tell($began, $chains->written, 'events in all');
    }

    /** @return list<string> */
    private function columns(Connection $db, string $table): array
    {
        return $db
            ->table('information_schema.columns')
            ->where('table_schema', $db->getDatabaseName())
            ->where('table_name', $table)
            ->where('extra', 'not like', '%GENERATED%')
            ->orderBy('ordinal_position')
            ->pluck('column_name')
            ->all();
    }

    private function tell(float $began, int $n, string $what): void
    {
        $this->line(sprintf('%8.1f s  %s %s', microtime(true) - $began, number_format($n), $what));
    }
}
