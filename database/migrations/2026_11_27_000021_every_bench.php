<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

// Dispatch and the returns desk are benches too; what is said at a bench is kept as it was spoken.
return new class extends Migration
{
    public function up(): void
    {
        DB::connection('owner')->unprepared(<<<'SQL'
            ALTER TABLE operations MODIFY bench ENUM('teardown','assembly','dispatch','returns') NOT NULL;
            ALTER TABLE proofs MODIFY bench ENUM('teardown','assembly','dispatch','returns') NOT NULL,
                MODIFY kind ENUM('count','orientation','photo','scan','timer','sign','observation') NOT NULL;
            CREATE TABLE recordings (
                id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                unit_id BIGINT UNSIGNED NOT NULL,
                generation SMALLINT UNSIGNED NOT NULL,
                bench ENUM('teardown','assembly','dispatch','returns') NOT NULL,
                operation VARCHAR(80) NOT NULL,
                path VARCHAR(160) NOT NULL,
                type VARCHAR(40) NOT NULL,
                bytes INT UNSIGNED NOT NULL,
                sha256 CHAR(64) NOT NULL,
                spoken_by INT UNSIGNED NOT NULL,
                spoken_at DATETIME NOT NULL,
                tablet_at DATETIME NULL,
                INDEX of_unit (unit_id, generation, bench, operation),
                FOREIGN KEY (unit_id) REFERENCES units(id),
                FOREIGN KEY (spoken_by) REFERENCES people(id)
            );
            CREATE TABLE discrepancies (
                id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                unit_id BIGINT UNSIGNED NOT NULL,
                generation SMALLINT UNSIGNED NOT NULL,
                bench ENUM('teardown','assembly','dispatch','returns') NOT NULL,
                operation VARCHAR(80) NOT NULL,
                proof VARCHAR(120) NOT NULL,
                what VARCHAR(80) NOT NULL,
                expected SMALLINT UNSIGNED NOT NULL,
                counted SMALLINT UNSIGNED NOT NULL,
                note VARCHAR(400) NOT NULL DEFAULT '',
                counted_by INT UNSIGNED NOT NULL,
                counted_at DATETIME NOT NULL,
                decision ENUM('found','came-so','ours') NULL,
                decision_note VARCHAR(400) NOT NULL DEFAULT '',
                decided_by INT UNSIGNED NULL,
                decided_at DATETIME NULL,
                undone_at DATETIME NULL,
                INDEX of_unit (unit_id, generation, bench),
                FOREIGN KEY (unit_id) REFERENCES units(id),
                FOREIGN KEY (counted_by) REFERENCES people(id),
                FOREIGN KEY (decided_by) REFERENCES people(id)
            );
        SQL);
    }
};
