<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

// A number of a run is held against a limit of its program, of the house, or what good units built alike give; of runs
// before this nobody wrote it down.
return new class extends Migration
{
    public function up(): void
    {
        DB::connection('owner')->unprepared(
            "ALTER TABLE run_checks ADD against ENUM('limits','house','good units') NULL AFTER most",
        );
    }
};
