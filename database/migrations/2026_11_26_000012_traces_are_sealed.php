<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

// The recording of a run lies outside the database; its hash says whether it is still the one that was judged.
return new class extends Migration
{
    public function up(): void
    {
        DB::connection('owner')->unprepared('ALTER TABLE dyno_runs ADD trace_sha256 CHAR(64) NULL AFTER trace_path');
    }
};
