<?php

use App\Insight\Queries\Sales;
use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

// What ten years would make slow: counts are kept by triggers, sales by variant, and long tables compressed by page.
return new class extends Migration
{
    private const COMPRESSED = [
        'ledger',
        'builds',
        'step_marks',
        'run_checks',
        'measurements',
        'shipments',
        'findings',
    ];

    private const SCHEMA = <<<'SQL'
        ALTER TABLE dyno_runs ADD INDEX awaiting_verdict (state, verdict, ended_at);
        ALTER TABLE builds ADD INDEX money_in_work (state, price);
        ALTER TABLE installed_parts ADD INDEX carried (lot_id, removed_at, build_id, count);
        ALTER TABLE customers ADD core_account BOOLEAN NOT NULL DEFAULT 0, ADD INDEX (core_account, name);
        UPDATE customers c SET core_account = 1 WHERE
            EXISTS (SELECT 1 FROM core_debts d WHERE d.customer_id = c.id) OR
            EXISTS (SELECT 1 FROM units u WHERE u.customer_id = c.id AND u.ownership = 'exchange');
        ALTER TABLE stock_lots ADD INDEX on_shelf (part_id, quantity);
        CREATE TABLE tallies (
            name VARCHAR(60) CHARACTER SET ascii NOT NULL,
            shard TINYINT UNSIGNED NOT NULL,
            n BIGINT NOT NULL DEFAULT 0,
            PRIMARY KEY (name, shard)
        );
        INSERT INTO tallies SELECT 'units', 0, COUNT(*) FROM units;
        INSERT INTO tallies SELECT CONCAT('units:', station), 0, COUNT(*) FROM units GROUP BY station;
        INSERT INTO tallies SELECT 'parts', 0, COUNT(*) FROM parts;
        CREATE TABLE sales (
            variant_id INT UNSIGNED NOT NULL,
            shipped_at DATETIME NOT NULL,
            build_id BIGINT UNSIGNED NOT NULL,
            price DECIMAL(12,2) NOT NULL,
            PRIMARY KEY (variant_id, shipped_at, build_id)
        );
        SQL;

    /** Writers of one moment add to different rows of a tally, so that none waits for another. */
    private const ADD = 'INSERT INTO tallies (name, shard, n) VALUES (%s, CONNECTION_ID() %% 16, %d) '
        .'ON DUPLICATE KEY UPDATE n = n + %2$d';

    public function up(): void
    {
        $owner = DB::connection('owner');
        $owner->unprepared(self::SCHEMA);
        foreach (self::COMPRESSED as $table) {
            $owner->unprepared("ALTER TABLE `$table` PAGE_COMPRESSED=1");
        }
        $add = fn (string $name, int $n): string => sprintf(self::ADD, $name, $n).'; ';
        $account = 'UPDATE customers SET core_account = 1 WHERE id = NEW.customer_id AND core_account = 0; ';
        $exchange = "IF NEW.ownership = 'exchange' AND NEW.customer_id IS NOT NULL THEN $account END IF; ";
        $came = $add("'units'", 1).$add("CONCAT('units:', NEW.station)", 1);
        $went = $add("'units'", -1).$add("CONCAT('units:', OLD.station)", -1);
        $moved = $add("CONCAT('units:', OLD.station)", -1).$add("CONCAT('units:', NEW.station)", 1);
        $triggers = [
            'unit_came AFTER INSERT ON units' => $came.$exchange,
            'unit_changed AFTER UPDATE ON units' => "IF NEW.station <> OLD.station THEN $moved END IF; ".
                "IF NOT NEW.customer_id <=> OLD.customer_id THEN $exchange END IF; ",
            'unit_went AFTER DELETE ON units' => $went,
            'part_came AFTER INSERT ON parts' => $add("'parts'", 1),
            'part_went AFTER DELETE ON parts' => $add("'parts'", -1),
            'core_is_owed AFTER INSERT ON core_debts' => $account,
        ];
        foreach ($triggers as $when => $do) {
            $owner->unprepared("CREATE TRIGGER $when FOR EACH ROW BEGIN $do END");
        }
        Sales::recount($owner);
    }
};
