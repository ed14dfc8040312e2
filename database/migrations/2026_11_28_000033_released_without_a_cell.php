<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

// A shop without a cell, or without the adapter for a unit: pressures at the taps and a road test, approved by name.
return new class extends Migration
{
    public function up(): void
    {
        DB::connection('owner')->unprepared(<<<'SQL'
            CREATE TABLE road_tests (
                id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                build_id BIGINT UNSIGNED NOT NULL,
                why VARCHAR(400) NOT NULL,
                pressures LONGTEXT NOT NULL,
                road LONGTEXT NOT NULL,
                verdict ENUM('pass','fail') NOT NULL,
                suspect VARCHAR(60) NOT NULL DEFAULT '',
                approved_by INT UNSIGNED NOT NULL,
                approved_at DATETIME NOT NULL,
                INDEX (build_id, id),
                FOREIGN KEY (build_id) REFERENCES builds(id),
                FOREIGN KEY (approved_by) REFERENCES people(id),
                CHECK (JSON_VALID(pressures)),
                CHECK (JSON_VALID(road)),
                CHECK ((verdict = 'fail') = (suspect <> ''))
            );
            SQL);
    }
};
