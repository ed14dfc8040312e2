<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

// Every write keeps its answer for a week, should it be sent again: a card of 100 kB, a sixth of that packed.
return new class extends Migration
{
    public function up(): void
    {
        DB::connection('owner')->unprepared('ALTER TABLE idempotency_keys MODIFY body LONGTEXT COMPRESSED NULL');
    }
};
