<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

// Who is signed in where, who tried, which tablets are the shop's own, and what people are good at.
return new class extends Migration
{
    public function up(): void
    {
        DB::connection('owner')->unprepared(<<<'SQL'
            ALTER TABLE people
                DROP COLUMN failed_pins,
                DROP COLUMN locked_until,
                ADD COLUMN pin_digits TINYINT UNSIGNED NULL AFTER pin_hash,
                ADD COLUMN version INT UNSIGNED NOT NULL DEFAULT 1;
            CREATE TABLE person_skills (
                person_id INT UNSIGNED NOT NULL,
                skill VARCHAR(60) NOT NULL,
                PRIMARY KEY (person_id, skill),
                FOREIGN KEY (person_id) REFERENCES people(id) ON DELETE CASCADE
            );
            CREATE TABLE tablets (
                id CHAR(64) CHARACTER SET ascii PRIMARY KEY,
                name CHAR(6) CHARACTER SET ascii NOT NULL,
                known_since DATETIME NOT NULL,
                known_by INT UNSIGNED NOT NULL,
                FOREIGN KEY (known_by) REFERENCES people(id)
            );
            CREATE TABLE open_sessions (
                id CHAR(64) CHARACTER SET ascii PRIMARY KEY,
                person_id INT UNSIGNED NOT NULL,
                tablet_id CHAR(64) CHARACTER SET ascii NOT NULL,
                address VARCHAR(45) NOT NULL,
                since DATETIME NOT NULL,
                seen_at DATETIME NOT NULL,
                locked_at DATETIME NULL,
                INDEX (person_id),
                INDEX (seen_at),
                FOREIGN KEY (person_id) REFERENCES people(id),
                FOREIGN KEY (tablet_id) REFERENCES tablets(id)
            );
            CREATE TABLE pin_counters (
                source VARCHAR(120) PRIMARY KEY,
                failures INT UNSIGNED NOT NULL,
                failed_at DATETIME NOT NULL,
                locked_until DATETIME NULL,
                INDEX (failed_at)
            );
            CREATE TABLE sign_ins (
                id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                at DATETIME NOT NULL,
                badge VARCHAR(20) NOT NULL,
                outcome ENUM('in','out','wrong','locked','idle','ended') NOT NULL,
                address VARCHAR(45) NOT NULL,
                tablet CHAR(6) CHARACTER SET ascii NULL,
                INDEX (badge, id),
                INDEX (at)
            );
            SQL);
    }
};
