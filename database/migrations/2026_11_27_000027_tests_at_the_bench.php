<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

// Parts are tested at the bench before they go in; a sub-assembly is signed for, and again where it was re-opened.
return new class extends Migration
{
    public function up(): void
    {
        $owner = DB::connection('owner');
        $owner->unprepared('SET @@system_versioning_alter_history = KEEP');
        $owner->unprepared(<<<'SQL'
            ALTER TABLE specs MODIFY kind VARCHAR(20) CHARACTER SET ascii NOT NULL;
            ALTER TABLE measurements
                MODIFY kind VARCHAR(20) CHARACTER SET ascii NOT NULL;
            ALTER TABLE sign_offs
                ADD nth SMALLINT UNSIGNED NOT NULL DEFAULT 1,
                ADD UNIQUE once (build_id, what, loop_no, nth),
                DROP INDEX build_id;
            SQL);
    }
};
