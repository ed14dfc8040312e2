<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

// Lists that name other things were JSON; as rows they are found, counted and held together by the database.
return new class extends Migration
{
    private const TABLES = <<<'SQL'
        CREATE TABLE intake_parts (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
            unit_id BIGINT UNSIGNED NOT NULL,
            kind ENUM('missing','failed') NOT NULL,
            position SMALLINT UNSIGNED NOT NULL,
            part_id INT UNSIGNED NOT NULL,
            count SMALLINT UNSIGNED NOT NULL DEFAULT 1,
            UNIQUE (unit_id, kind, position),
            INDEX (part_id, kind),
            FOREIGN KEY (unit_id) REFERENCES units(id),
            FOREIGN KEY (part_id) REFERENCES parts(id),
            CHECK (count > 0)
        );
        CREATE TABLE credit_lines (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
            unit_id BIGINT UNSIGNED NOT NULL,
            revision TINYINT UNSIGNED NOT NULL DEFAULT 0,
            position SMALLINT UNSIGNED NOT NULL,
            kind VARCHAR(30) NOT NULL,
            label VARCHAR(200) NOT NULL,
            quantity DECIMAL(10,3) NOT NULL,
            unit_price DECIMAL(12,2) NOT NULL,
            amount DECIMAL(12,2) NOT NULL,
            UNIQUE (unit_id, revision, position),
            FOREIGN KEY (unit_id) REFERENCES units(id)
        );
        CREATE TABLE trouble_codes (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
            unit_id BIGINT UNSIGNED NOT NULL,
            return_id BIGINT UNSIGNED NULL,
            position SMALLINT UNSIGNED NOT NULL,
            code VARCHAR(20) NOT NULL,
            UNIQUE (unit_id, return_id, position),
            INDEX (code),
            FOREIGN KEY (unit_id) REFERENCES units(id),
            FOREIGN KEY (return_id) REFERENCES returns(id)
        );
        CREATE TABLE damage_marks (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
            unit_id BIGINT UNSIGNED NOT NULL,
            position SMALLINT UNSIGNED NOT NULL,
            place VARCHAR(60) NOT NULL,
            what VARCHAR(160) NOT NULL,
            UNIQUE (unit_id, position),
            FOREIGN KEY (unit_id) REFERENCES units(id)
        );
        CREATE TABLE order_options (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
            build_id BIGINT UNSIGNED NOT NULL,
            wish ENUM('add','drop') NOT NULL,
            position SMALLINT UNSIGNED NOT NULL,
            option_id INT UNSIGNED NOT NULL,
            UNIQUE (build_id, wish, position),
            UNIQUE (build_id, option_id),
            INDEX (option_id),
            FOREIGN KEY (build_id) REFERENCES builds(id),
            FOREIGN KEY (option_id) REFERENCES options(id)
        );
        CREATE TABLE pack_fit_picks (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
            pack_fit_id BIGINT UNSIGNED NOT NULL,
            position SMALLINT UNSIGNED NOT NULL,
            slot VARCHAR(60) NOT NULL,
            part_id INT UNSIGNED NOT NULL,
            count SMALLINT UNSIGNED NOT NULL,
            UNIQUE (pack_fit_id, position),
            INDEX (part_id),
            FOREIGN KEY (pack_fit_id) REFERENCES pack_fits(id),
            FOREIGN KEY (part_id) REFERENCES parts(id)
        );
        CREATE TABLE run_checks (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
            run_id BIGINT UNSIGNED NOT NULL,
            position SMALLINT UNSIGNED NOT NULL,
            name VARCHAR(60) NOT NULL,
            place VARCHAR(60) NOT NULL,
            value DOUBLE NULL,
            unit VARCHAR(20) NOT NULL,
            least DOUBLE NULL,
            most DOUBLE NULL,
            pass BOOLEAN NOT NULL,
            UNIQUE (run_id, position),
            FOREIGN KEY (run_id) REFERENCES dyno_runs(id),
            CHECK (value IS NOT NULL OR NOT pass)
        );
        CREATE TABLE return_observations (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
            return_id BIGINT UNSIGNED NOT NULL,
            feature VARCHAR(60) NOT NULL,
            value VARCHAR(120) NOT NULL,
            UNIQUE (return_id, feature),
            FOREIGN KEY (return_id) REFERENCES returns(id)
        );
        CREATE TABLE return_readings (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
            return_id BIGINT UNSIGNED NOT NULL,
            kind VARCHAR(20) NOT NULL,
            place VARCHAR(60) NOT NULL,
            value DECIMAL(18,9) NOT NULL,
            unit VARCHAR(20) NOT NULL,
            typed VARCHAR(60) NOT NULL,
            UNIQUE (return_id, kind, place),
            FOREIGN KEY (return_id) REFERENCES returns(id)
        );
        ALTER TABLE builds
            ADD asked_duty LONGTEXT NULL,
            ADD CONSTRAINT asked_duty_is_object CHECK (asked_duty IS NULL OR JSON_TYPE(asked_duty) = 'OBJECT');
        SQL;

    /** The lists as they were, row by row; what names a part or an option that is gone stays in the ledger only. */
    private const CARRIED = <<<'SQL'
        INSERT INTO intake_parts (unit_id, kind, position, part_id, count)
            SELECT u.id, 'missing', j.n - 1, p.id, COALESCE(j.count, 1) FROM units u,
                JSON_TABLE(u.missing, '$[*]' COLUMNS (n FOR ORDINALITY, part VARCHAR(40) PATH '$.part',
                    count INT PATH '$.count')) j
                JOIN parts p ON p.number = j.part;
        INSERT INTO intake_parts (unit_id, kind, position, part_id)
            SELECT u.id, 'failed', j.n - 1, p.id FROM units u,
                JSON_TABLE(u.failed_hard, '$[*]' COLUMNS (n FOR ORDINALITY, part VARCHAR(40) PATH '$.part')) j
                JOIN parts p ON p.number = j.part;
        INSERT INTO credit_lines (unit_id, revision, position, kind, label, quantity, unit_price, amount)
            SELECT u.id, 0, j.n - 1, j.kind, j.label, j.quantity, j.price, j.amount FROM units u,
                JSON_TABLE(IF(u.credit_revision IS NULL, u.credit_lines,
                    JSON_EXTRACT(u.credit_revision, '$.linesBefore')),
                    '$[*]' COLUMNS (n FOR ORDINALITY, kind VARCHAR(30) PATH '$.kind', label VARCHAR(200) PATH '$.label',
                    quantity DECIMAL(10,3) PATH '$.quantity', price DECIMAL(12,2) PATH '$.unitPrice',
                    amount DECIMAL(12,2) PATH '$.amount')) j;
        INSERT INTO credit_lines (unit_id, revision, position, kind, label, quantity, unit_price, amount)
            SELECT u.id, 1, j.n - 1, j.kind, j.label, j.quantity, j.price, j.amount FROM units u,
                JSON_TABLE(u.credit_lines, '$[*]' COLUMNS (n FOR ORDINALITY, kind VARCHAR(30) PATH '$.kind',
                    label VARCHAR(200) PATH '$.label', quantity DECIMAL(10,3) PATH '$.quantity',
                    price DECIMAL(12,2) PATH '$.unitPrice', amount DECIMAL(12,2) PATH '$.amount')) j
                WHERE u.credit_revision IS NOT NULL;
        INSERT INTO trouble_codes (unit_id, position, code)
            SELECT u.id, j.n - 1, j.code FROM units u,
                JSON_TABLE(u.codes, '$[*]' COLUMNS (n FOR ORDINALITY, code VARCHAR(20) PATH '$')) j;
        INSERT INTO trouble_codes (unit_id, return_id, position, code)
            SELECT r.unit_id, r.id, j.n - 1, j.code FROM returns r,
                JSON_TABLE(r.codes, '$[*]' COLUMNS (n FOR ORDINALITY, code VARCHAR(20) PATH '$')) j;
        INSERT INTO damage_marks (unit_id, position, place, what)
            SELECT u.id, j.n - 1, j.place, j.what FROM units u,
                JSON_TABLE(u.damage, '$[*]' COLUMNS (n FOR ORDINALITY, place VARCHAR(60) PATH '$.place',
                    what VARCHAR(160) PATH '$.what')) j;
        INSERT INTO order_options (build_id, wish, position, option_id)
            SELECT b.id, 'add', MIN(j.n) - 1, o.id FROM builds b JOIN packages p ON p.id = b.package_id,
                JSON_TABLE(b.order_lines, '$.add[*]' COLUMNS (n FOR ORDINALITY, code VARCHAR(60) PATH '$')) j
                JOIN options o ON o.code = j.code WHERE o.family_id = p.family_id GROUP BY b.id, o.id;
        INSERT INTO order_options (build_id, wish, position, option_id)
            SELECT b.id, 'drop', MIN(j.n) - 1, o.id FROM builds b JOIN packages p ON p.id = b.package_id,
                JSON_TABLE(b.order_lines, '$.drop[*]' COLUMNS (n FOR ORDINALITY, code VARCHAR(60) PATH '$')) j
                JOIN options o ON o.code = j.code WHERE o.family_id = p.family_id
                AND NOT EXISTS (SELECT 1 FROM order_options x WHERE x.build_id = b.id AND x.option_id = o.id)
                GROUP BY b.id, o.id;
        UPDATE builds SET asked_duty = JSON_EXTRACT(order_lines, '$.duty')
            WHERE JSON_TYPE(JSON_EXTRACT(order_lines, '$.duty')) = 'OBJECT';
        INSERT INTO pack_fit_picks (pack_fit_id, position, slot, part_id, count)
            SELECT f.id, j.n - 1, j.slot, p.id, j.count FROM pack_fits f,
                JSON_TABLE(f.picks, '$[*]' COLUMNS (n FOR ORDINALITY, slot VARCHAR(60) PATH '$.slot',
                    part VARCHAR(40) PATH '$.part', count INT PATH '$.count')) j
                JOIN parts p ON p.number = j.part;
        INSERT INTO run_checks (run_id, position, name, place, value, unit, least, most, pass)
            SELECT r.id, j.n - 1, j.name, j.place, j.value, j.unit, j.least, j.most, j.pass AND j.value IS NOT NULL
                FROM dyno_runs r,
                JSON_TABLE(r.checks, '$[*]' COLUMNS (n FOR ORDINALITY, name VARCHAR(60) PATH '$.check',
                    place VARCHAR(60) PATH '$.where', value DOUBLE PATH '$.value', unit VARCHAR(20) PATH '$.unit',
                    least DOUBLE PATH '$.min', most DOUBLE PATH '$.max', pass BOOLEAN PATH '$.pass')) j;
        INSERT INTO return_observations (return_id, feature, value)
            SELECT r.id, k.feature, JSON_VALUE(r.observed, CONCAT('$.features."', k.feature, '"')) FROM returns r,
                JSON_TABLE(JSON_KEYS(r.observed, '$.features'), '$[*]' COLUMNS (feature VARCHAR(60) PATH '$')) k;
        INSERT INTO return_readings (return_id, kind, place, value, unit, typed)
            SELECT r.id, SUBSTRING_INDEX(k.place, ':', 1), SUBSTRING(k.place, LOCATE(':', k.place) + 1),
                JSON_VALUE(r.observed, CONCAT('$.now."', k.place, '".value')),
                JSON_VALUE(r.observed, CONCAT('$.now."', k.place, '".unit')),
                JSON_VALUE(r.observed, CONCAT('$.now."', k.place, '".typed')) FROM returns r,
                JSON_TABLE(JSON_KEYS(r.observed, '$.now'), '$[*]' COLUMNS (place VARCHAR(90) PATH '$')) k;
        UPDATE units SET credit_revision = JSON_REMOVE(credit_revision, '$.linesBefore')
            WHERE credit_revision IS NOT NULL;
        SQL;

    private const DROPPED = [
        'units' => ['codes', 'credit_lines', 'damage', 'failed_hard', 'missing'],
        'builds' => ['order_lines'],
        'pack_fits' => ['picks'],
        'dyno_runs' => ['checks'],
        'returns' => ['codes', 'observed'],
    ];

    public function up(): void
    {
        $owner = DB::connection('owner');
        $owner->unprepared(self::TABLES);
        $owner->unprepared(self::CARRIED);
        foreach (self::DROPPED as $table => $columns) {
            $this->dropChecks($table, $columns);
            $owner->unprepared("ALTER TABLE `$table` DROP COLUMN ".implode(', DROP COLUMN ', $columns));
        }
    }

    /**
     * A column that a check names cannot go before the check.
     *
     * @param  list<string>  $columns
     */
    private function dropChecks(string $table, array $columns): void
    {
        $owner = DB::connection('owner');
        $checks = $owner->select(
            'SELECT constraint_name AS name, check_clause AS clause FROM information_schema.check_constraints'.
                ' WHERE constraint_schema = DATABASE() AND table_name = ?',
            [$table],
        );
        foreach ($checks as $check) {
            foreach ($columns as $column) {
                if (str_contains($check->clause, "`$column`")) {
                    $owner->unprepared("ALTER TABLE `$table` DROP CONSTRAINT `$check->name`");
                    break;
                }
            }
        }
    }
};
