<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

// Where a variant's hardware differs from its family's, and what the duty of a vehicle is reckoned from.
return new class extends Migration
{
    public function up(): void
    {
        $db = DB::connection('owner');
        $db->unprepared('SET @@system_versioning_alter_history = KEEP');
        $db->unprepared(
            <<<'SQL'
            ALTER TABLE variants ADD COLUMN hardware LONGTEXT NOT NULL DEFAULT '[]' AFTER facts,
            ADD CHECK (JSON_VALID(hardware));
            ALTER TABLE vehicles ADD COLUMN tyre VARCHAR(30) NOT NULL DEFAULT '' AFTER axle_ratio,
            ADD COLUMN engine_curve LONGTEXT NOT NULL DEFAULT '[]' AFTER tyre,
            ADD CHECK (JSON_VALID(engine_curve));
            SQL
            ,
        );
    }
};
