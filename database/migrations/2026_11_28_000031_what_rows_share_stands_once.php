<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

// What many builds and runs share word for word stands once, under the SHA-256 of its text. Rows from before stay.
return new class extends Migration
{
    public function up(): void
    {
        DB::connection('owner')->unprepared(
            'CREATE TABLE papers (
                sha256 CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
                body LONGTEXT COMPRESSED NOT NULL,
                CONSTRAINT papers_are_json CHECK (JSON_VALID(body))
            )',
        );
    }
};
