<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

// Which cell a run was made in; the unit that stays in the house to tell a cell that drifts from a unit that fails.
return new class extends Migration
{
    public function up(): void
    {
        DB::connection('owner')->unprepared(<<<'SQL'
            ALTER TABLE dyno_runs
                ADD cell VARCHAR(8) CHARACTER SET ascii NOT NULL DEFAULT 'A' AFTER specimen,
                ADD purpose ENUM('unit','reference') NOT NULL DEFAULT 'unit' AFTER cell,
                ADD INDEX of_cell (cell, purpose, id);
            CREATE TABLE reference_units (
                id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                cell VARCHAR(8) CHARACTER SET ascii NOT NULL,
                build_id BIGINT UNSIGNED NOT NULL,
                kept_by INT UNSIGNED NOT NULL,
                kept_at DATETIME NOT NULL,
                released_by INT UNSIGNED NULL,
                released_at DATETIME NULL,
                of_cell VARCHAR(8) CHARACTER SET ascii AS (IF(released_at IS NULL, cell, NULL)) PERSISTENT,
                UNIQUE (of_cell),
                FOREIGN KEY (build_id) REFERENCES builds(id),
                FOREIGN KEY (kept_by) REFERENCES people(id),
                FOREIGN KEY (released_by) REFERENCES people(id),
                CHECK ((released_at IS NULL) = (released_by IS NULL))
            );
            SQL);
    }
};
