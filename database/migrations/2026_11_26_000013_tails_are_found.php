<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

// The last characters of a number are what people read out; backwards, an index finds them.
return new class extends Migration
{
    public function up(): void
    {
        DB::connection('owner')->unprepared(<<<'SQL'
            ALTER TABLE units
                ADD COLUMN core_tag_reversed VARCHAR(20) AS (REVERSE(core_tag)) PERSISTENT,
                ADD COLUMN vin_reversed VARCHAR(17) AS (REVERSE(vin)) PERSISTENT,
                ADD INDEX (core_tag_reversed), ADD INDEX (vin_reversed);
            ALTER TABLE builds
                ADD COLUMN serial_reversed VARCHAR(20) AS (REVERSE(serial)) PERSISTENT,
                ADD INDEX (serial_reversed);
            SQL);
    }
};
