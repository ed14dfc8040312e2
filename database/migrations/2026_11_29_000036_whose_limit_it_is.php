<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

// A number of a run lies outside a limit, or outside what good units built alike give; of runs before this nobody wrote
// it down.
return new class extends Migration
{
    public function up(): void
    {
        DB::connection('owner')->unprepared(
            "ALTER TABLE run_checks ADD against ENUM('limits','good units') NULL AFTER most",
        );
    }
};
