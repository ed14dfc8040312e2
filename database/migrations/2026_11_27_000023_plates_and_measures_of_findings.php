<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

// What was measured on a part, with which gauge, and how each plate of a pack looked, in stack order.
return new class extends Migration
{
    public function up(): void
    {
        DB::connection('owner')->unprepared(<<<'SQL'
            ALTER TABLE findings
                ADD measured DECIMAL(14,6) NULL,
                ADD measured_typed VARCHAR(40) NULL,
                ADD measured_inside BOOLEAN NULL,
                ADD gauge_id INT UNSIGNED NULL,
                ADD FOREIGN KEY (gauge_id) REFERENCES gauges(id);
            CREATE TABLE finding_plates (
                id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                finding_id BIGINT UNSIGNED NOT NULL,
                position SMALLINT UNSIGNED NOT NULL,
                `condition` VARCHAR(60) NOT NULL,
                UNIQUE (finding_id, position),
                FOREIGN KEY (finding_id) REFERENCES findings(id)
            ) PAGE_COMPRESSED=1;
            ALTER TABLE proofs MODIFY kind VARCHAR(20) CHARACTER SET ascii NOT NULL;
            SQL);
    }
};
