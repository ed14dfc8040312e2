<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

// Gauges are checked and studied; processes are read back place by place; parts of the order are picked lot by lot.
return new class extends Migration
{
    public function up(): void
    {
        DB::connection('owner')->unprepared(<<<'SQL'
            ALTER TABLE gauges
                ADD doubt_from DATETIME NULL,
                ADD doubt_to DATETIME NULL,
                ADD spread DECIMAL(18,9) NULL,
                ADD arm_mm DECIMAL(8,2) NULL,
                ADD version INT UNSIGNED NOT NULL DEFAULT 1;
            CREATE TABLE gauge_checks (
                id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                gauge_id INT UNSIGNED NOT NULL,
                result ENUM('good','bad') NOT NULL,
                next_due DATE NULL,
                note VARCHAR(300) NOT NULL DEFAULT '',
                checked_by INT UNSIGNED NOT NULL,
                checked_at DATETIME NOT NULL,
                INDEX (gauge_id, id),
                FOREIGN KEY (gauge_id) REFERENCES gauges(id),
                FOREIGN KEY (checked_by) REFERENCES people(id)
            );
            CREATE TABLE gauge_studies (
                id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                gauge_id INT UNSIGNED NOT NULL,
                unit VARCHAR(10) NOT NULL,
                readings LONGTEXT NOT NULL,
                repeatability DECIMAL(18,9) NOT NULL,
                reproducibility DECIMAL(18,9) NOT NULL,
                part_spread DECIMAL(18,9) NOT NULL,
                categories INT UNSIGNED NOT NULL,
                studied_by INT UNSIGNED NOT NULL,
                studied_at DATETIME NOT NULL,
                INDEX (gauge_id, id),
                FOREIGN KEY (gauge_id) REFERENCES gauges(id),
                FOREIGN KEY (studied_by) REFERENCES people(id),
                CHECK (JSON_VALID(readings))
            );
            ALTER TABLE measurements
                ADD INDEX by_place (kind, code, id),
                ADD INDEX by_gauge (gauge_id, measured_at);
            SQL);
    }
};
