<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

// What is told of the life of a unit: complaints, services, upgrades and rebuilds, each at its distance.
return new class extends Migration
{
    public function up(): void
    {
        DB::connection('owner')->unprepared(
            "ALTER TABLE units ADD COLUMN timeline LONGTEXT NOT NULL DEFAULT '[]' AFTER pressures;",
        );
    }
};
