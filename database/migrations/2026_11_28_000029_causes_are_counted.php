<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

// What teardowns named as the cause is counted by family: few of many findings.
return new class extends Migration
{
    public function up(): void
    {
        DB::connection('owner')->unprepared('ALTER TABLE findings ADD INDEX findings_role (role, unit_id);');
    }
};
