<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

// Where a unit drips, what was repaired on it for ever, whose hard part may move, and which core a part came out of.
return new class extends Migration
{
    public function up(): void
    {
        DB::connection('owner')->unprepared(<<<'SQL'
            ALTER TABLE units
                ADD COLUMN leak LONGTEXT NOT NULL DEFAULT '{}' AFTER pressures,
                ADD CONSTRAINT leak_is_an_object CHECK (JSON_TYPE(leak) = 'OBJECT');
            CREATE TABLE repairs (
                id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                unit_id BIGINT UNSIGNED NOT NULL,
                generation SMALLINT UNSIGNED NOT NULL,
                place VARCHAR(80) NOT NULL,
                place_name VARCHAR(160) NOT NULL,
                trouble ENUM('seized','stripped','broken') NOT NULL,
                method VARCHAR(60) NOT NULL,
                method_name VARCHAR(160) NOT NULL,
                hours DECIMAL(6,2) NOT NULL,
                check_after VARCHAR(300) NOT NULL,
                note VARCHAR(400) NOT NULL DEFAULT '',
                done_by INT UNSIGNED NOT NULL,
                done_at DATETIME NOT NULL,
                INDEX (unit_id),
                FOREIGN KEY (unit_id) REFERENCES units(id),
                FOREIGN KEY (done_by) REFERENCES people(id),
                CHECK (hours >= 0)
            );
            CREATE TABLE swap_agreements (
                id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                unit_id BIGINT UNSIGNED NOT NULL,
                part VARCHAR(80) NOT NULL,
                agreed_by VARCHAR(120) NOT NULL,
                how VARCHAR(300) NOT NULL,
                recorded_by INT UNSIGNED NOT NULL,
                recorded_at DATETIME NOT NULL,
                UNIQUE (unit_id, part),
                FOREIGN KEY (unit_id) REFERENCES units(id),
                FOREIGN KEY (recorded_by) REFERENCES people(id)
            );
            ALTER TABLE stock_lots
                ADD origin_unit_id BIGINT UNSIGNED NULL,
                ADD FOREIGN KEY (origin_unit_id) REFERENCES units(id);
            SQL);
    }
};
