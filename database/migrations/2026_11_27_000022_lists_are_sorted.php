<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

// What a list may be sorted by stands in an index; a unit nothing is promised of comes last.
return new class extends Migration
{
    public function up(): void
    {
        DB::connection('owner')->unprepared(<<<'SQL'
            ALTER TABLE units
                ADD COLUMN promise_order DATE AS (COALESCE(promised_on, DATE '9999-12-31')) PERSISTENT,
                ADD INDEX by_promise (promise_order, id),
                ADD INDEX by_waiting (station_since, id),
                ADD INDEX by_grade (grade, id);
            ALTER TABLE parts ADD INDEX by_name (name, number), ADD INDEX by_price (price, number);
            SQL);
    }
};
