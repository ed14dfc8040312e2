<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

// A recording made elsewhere is looked at like a run, and never a verdict.
return new class extends Migration
{
    public function up(): void
    {
        DB::connection('owner')->unprepared(
            "ALTER TABLE dyno_runs MODIFY purpose ENUM('unit','reference','foreign') NOT NULL DEFAULT 'unit'",
        );
    }
};
