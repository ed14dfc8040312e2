<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

// Pieces, routes and second grades of findings; special tools; baskets weighed and moved; what a teardown turns up that
// somebody must agree to, mend outside the unit, or take out again before it ships.
return new class extends Migration
{
    public function up(): void
    {
        DB::connection('owner')->unprepared(<<<'SQL'
            ALTER TABLE findings
                ADD pieces ENUM('whole','missing') NULL,
                ADD route VARCHAR(60) NULL,
                ADD route_hours DECIMAL(6,2) NULL,
                ADD second_due TINYINT(1) NOT NULL DEFAULT 0,
                ADD INDEX second_looks (second_due, id);
            CREATE TABLE second_grades (
                id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                unit_id BIGINT UNSIGNED NOT NULL,
                generation SMALLINT UNSIGNED NOT NULL,
                part VARCHAR(80) NOT NULL,
                part_kind VARCHAR(40) NOT NULL,
                first_condition VARCHAR(60) NOT NULL,
                second_condition VARCHAR(60) NOT NULL,
                first_by INT UNSIGNED NOT NULL,
                graded_by INT UNSIGNED NOT NULL,
                graded_at DATETIME NOT NULL,
                UNIQUE (unit_id, generation, part),
                INDEX (part_kind),
                FOREIGN KEY (unit_id) REFERENCES units(id),
                FOREIGN KEY (first_by) REFERENCES people(id),
                FOREIGN KEY (graded_by) REFERENCES people(id),
                CHECK (first_by <> graded_by)
            );
            CREATE TABLE reference_pictures (
                id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                part_kind VARCHAR(40) NOT NULL,
                `condition` VARCHAR(60) NOT NULL,
                photo_id BIGINT UNSIGNED NOT NULL,
                chosen_by INT UNSIGNED NOT NULL,
                chosen_at DATETIME NOT NULL,
                UNIQUE (part_kind, `condition`),
                FOREIGN KEY (photo_id) REFERENCES photos(id),
                FOREIGN KEY (chosen_by) REFERENCES people(id)
            );
            CREATE TABLE special_tools (
                id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                tag VARCHAR(20) NOT NULL UNIQUE,
                kind VARCHAR(60) NOT NULL,
                name VARCHAR(160) NOT NULL,
                place VARCHAR(60) NOT NULL,
                inspected_until DATE NOT NULL,
                version INT UNSIGNED NOT NULL DEFAULT 1,
                INDEX (kind)
            );
            ALTER TABLE trays
                ADD stage ENUM('bench','washer','inspection','shelf') NOT NULL DEFAULT 'bench',
                ADD moved_by INT UNSIGNED NULL,
                ADD moved_at DATETIME NULL,
                ADD FOREIGN KEY (moved_by) REFERENCES people(id);
            CREATE TABLE tray_weighings (
                id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                unit_id BIGINT UNSIGNED NOT NULL,
                tag VARCHAR(20) NOT NULL,
                item VARCHAR(120) NOT NULL,
                expected SMALLINT UNSIGNED NOT NULL,
                counted SMALLINT UNSIGNED NOT NULL,
                net_g DECIMAL(10,3) NOT NULL,
                piece_g DECIMAL(10,4) NOT NULL,
                weighed_by INT UNSIGNED NOT NULL,
                weighed_at DATETIME NOT NULL,
                INDEX (unit_id),
                FOREIGN KEY (unit_id) REFERENCES units(id),
                FOREIGN KEY (weighed_by) REFERENCES people(id),
                CHECK (net_g >= 0 AND piece_g > 0)
            );
            CREATE TABLE extra_works (
                id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                unit_id BIGINT UNSIGNED NOT NULL,
                generation SMALLINT UNSIGNED NOT NULL,
                text VARCHAR(300) NOT NULL,
                hours DECIMAL(6,2) NOT NULL,
                price DECIMAL(10,2) NOT NULL,
                answer ENUM('approved','declined') NULL,
                answered_by VARCHAR(120) NOT NULL DEFAULT '',
                how VARCHAR(300) NOT NULL DEFAULT '',
                asked_by INT UNSIGNED NOT NULL,
                asked_at DATETIME NOT NULL,
                recorded_by INT UNSIGNED NULL,
                recorded_at DATETIME NULL,
                INDEX (unit_id),
                FOREIGN KEY (unit_id) REFERENCES units(id),
                FOREIGN KEY (asked_by) REFERENCES people(id),
                FOREIGN KEY (recorded_by) REFERENCES people(id),
                CHECK (hours >= 0 AND price >= 0)
            );
            CREATE TABLE vehicle_causes (
                id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                unit_id BIGINT UNSIGNED NOT NULL,
                generation SMALLINT UNSIGNED NOT NULL,
                cause VARCHAR(60) NOT NULL,
                name VARCHAR(160) NOT NULL,
                letter VARCHAR(600) NOT NULL,
                `condition` VARCHAR(300) NOT NULL,
                note VARCHAR(400) NOT NULL DEFAULT '',
                named_by INT UNSIGNED NOT NULL,
                named_at DATETIME NOT NULL,
                settled_by_name VARCHAR(120) NOT NULL DEFAULT '',
                settled_how VARCHAR(300) NOT NULL DEFAULT '',
                settled_by INT UNSIGNED NULL,
                settled_at DATETIME NULL,
                UNIQUE (unit_id, generation, cause),
                FOREIGN KEY (unit_id) REFERENCES units(id),
                FOREIGN KEY (named_by) REFERENCES people(id),
                FOREIGN KEY (settled_by) REFERENCES people(id)
            );
            CREATE TABLE loan_parts (
                id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                unit_id BIGINT UNSIGNED NOT NULL,
                name VARCHAR(160) NOT NULL,
                origin VARCHAR(160) NOT NULL,
                reason VARCHAR(300) NOT NULL,
                fitted_by INT UNSIGNED NOT NULL,
                fitted_at DATETIME NOT NULL,
                out_by INT UNSIGNED NULL,
                out_at DATETIME NULL,
                INDEX (unit_id),
                FOREIGN KEY (unit_id) REFERENCES units(id),
                FOREIGN KEY (fitted_by) REFERENCES people(id),
                FOREIGN KEY (out_by) REFERENCES people(id)
            );
            SQL);
    }
};
