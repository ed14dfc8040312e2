<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

// What a plan of the bin gave a build is kept for it until it goes in or is given back.
return new class extends Migration
{
    public function up(): void
    {
        DB::connection('owner')->unprepared(<<<'SQL'
            CREATE TABLE held_parts (
                id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                build_id BIGINT UNSIGNED NOT NULL,
                place VARCHAR(60) NOT NULL,
                part_id INT UNSIGNED NOT NULL,
                count INT UNSIGNED NOT NULL,
                held_by INT UNSIGNED NOT NULL,
                held_at DATETIME NOT NULL,
                released_at DATETIME NULL,
                INDEX (part_id, released_at),
                INDEX (build_id, place, released_at),
                FOREIGN KEY (build_id) REFERENCES builds(id),
                FOREIGN KEY (part_id) REFERENCES parts(id),
                FOREIGN KEY (held_by) REFERENCES people(id)
            );
            SQL);
    }
};
