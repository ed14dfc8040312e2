<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

// Interchange data, who changed the catalog, and what receiving and the identification desk keep beside the unit.
return new class extends Migration
{
    /** Tables the catalog editor writes; each row version says who wrote it. */
    private const CATALOG = [
        'job_types',
        'families',
        'variants',
        'vehicles',
        'applications',
        'parts',
        'supersessions',
        'options',
        'packages',
        'specs',
        'evidence_models',
    ];

    public function up(): void
    {
        $db = DB::connection('owner');
        $db->unprepared('SET @@system_versioning_alter_history = KEEP');
        foreach (self::CATALOG as $table) {
            $db->unprepared("ALTER TABLE $table ADD COLUMN changed_by INT UNSIGNED NULL");
        }
        $db->unprepared(
            <<<'SQL'
            ALTER TABLE supersessions ADD COLUMN id INT UNSIGNED NOT NULL AUTO_INCREMENT UNIQUE FIRST;
            ALTER TABLE variants ADD COLUMN facts LONGTEXT NOT NULL DEFAULT '[]' AFTER scrap_value;
            ALTER TABLE vehicles ADD COLUMN steering ENUM('left','right','either') NOT NULL DEFAULT 'either' AFTER
                axle_ratio,
            ADD COLUMN vin_pattern VARCHAR(17) NULL AFTER steering,
            ADD COLUMN facts LONGTEXT NOT NULL DEFAULT '[]' AFTER vin_pattern,
            ADD INDEX (wmi);
            ALTER TABLE specs ADD COLUMN claims LONGTEXT NOT NULL DEFAULT '[]' AFTER body,
            ADD COLUMN signed LONGTEXT NULL AFTER claims;
            ALTER TABLE kit_items ADD COLUMN position SMALLINT UNSIGNED NOT NULL DEFAULT 0,
            ADD COLUMN changed_by INT UNSIGNED NULL;
            CREATE TABLE vocabularies (
                id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                code VARCHAR(60) NOT NULL UNIQUE,
                source VARCHAR(200) NOT NULL,
                body LONGTEXT NOT NULL,
                changed_by INT UNSIGNED NULL,
                CHECK (JSON_VALID(body))
            ) WITH SYSTEM VERSIONING;
            CREATE TABLE part_sets (
                id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                code VARCHAR(60) NOT NULL UNIQUE,
                name VARCHAR(160) NOT NULL,
                why VARCHAR(300) NOT NULL,
                changed_by INT UNSIGNED NULL
            ) WITH SYSTEM VERSIONING;
            CREATE TABLE part_set_items (
                set_id INT UNSIGNED NOT NULL,
                part_id INT UNSIGNED NOT NULL,
                position SMALLINT UNSIGNED NOT NULL DEFAULT 0,
                changed_by INT UNSIGNED NULL,
                PRIMARY KEY (set_id, part_id),
                INDEX (part_id),
                FOREIGN KEY (set_id) REFERENCES part_sets(id),
                FOREIGN KEY (part_id) REFERENCES parts(id)
            ) WITH SYSTEM VERSIONING;
            CREATE TABLE equal_parts (
                id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                part_id INT UNSIGNED NOT NULL,
                equals_part_id INT UNSIGNED NOT NULL,
                note VARCHAR(300) NOT NULL DEFAULT '',
                source VARCHAR(160) NOT NULL,
                edition VARCHAR(60) NOT NULL DEFAULT '',
                confidence ENUM('documented','shop-measured','borrowed','recalled','unverified') NOT NULL,
                changed_by INT UNSIGNED NULL,
                UNIQUE (part_id, equals_part_id),
                INDEX (equals_part_id),
                FOREIGN KEY (part_id) REFERENCES parts(id),
                FOREIGN KEY (equals_part_id) REFERENCES parts(id),
                CHECK (part_id <> equals_part_id)
            ) WITH SYSTEM VERSIONING;
            CREATE TABLE part_fits (
                id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                part_id INT UNSIGNED NOT NULL,
                variant_id INT UNSIGNED NOT NULL,
                from_year SMALLINT UNSIGNED NOT NULL,
                to_year SMALLINT UNSIGNED NOT NULL,
                count SMALLINT UNSIGNED NOT NULL DEFAULT 1,
                source VARCHAR(160) NOT NULL,
                edition VARCHAR(60) NOT NULL DEFAULT '',
                confidence ENUM('documented','shop-measured','borrowed','recalled','unverified') NOT NULL,
                changed_by INT UNSIGNED NULL,
                UNIQUE (part_id, variant_id, from_year),
                INDEX (variant_id),
                FOREIGN KEY (part_id) REFERENCES parts(id),
                FOREIGN KEY (variant_id) REFERENCES variants(id),
                CHECK (from_year <= to_year)
            ) WITH SYSTEM VERSIONING;
            CREATE TABLE conversions (
                id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                code VARCHAR(60) NOT NULL UNIQUE,
                name VARCHAR(160) NOT NULL,
                from_variant_id INT UNSIGNED NOT NULL,
                to_variant_id INT UNSIGNED NOT NULL,
                parts LONGTEXT NOT NULL DEFAULT '[]',
                hours DECIMAL(6,2) NOT NULL,
                cost DECIMAL(10,2) NOT NULL,
                requires LONGTEXT NOT NULL DEFAULT '[]',
                forbids LONGTEXT NOT NULL DEFAULT '[]',
                steps LONGTEXT NOT NULL DEFAULT '[]',
                source VARCHAR(160) NOT NULL,
                edition VARCHAR(60) NOT NULL DEFAULT '',
                confidence ENUM('documented','shop-measured','borrowed','recalled','unverified') NOT NULL,
                changed_by INT UNSIGNED NULL,
                INDEX (to_variant_id),
                INDEX (from_variant_id),
                FOREIGN KEY (from_variant_id) REFERENCES variants(id),
                FOREIGN KEY (to_variant_id) REFERENCES variants(id),
                CHECK (from_variant_id <> to_variant_id AND hours >= 0 AND cost >= 0)
            ) WITH SYSTEM VERSIONING;

            CREATE TABLE csv_imports (
                id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                kind ENUM('parts','prices','applications','stock') NOT NULL,
                filename VARCHAR(160) NOT NULL,
                path VARCHAR(200) NOT NULL,
                state ENUM('checking','ready','refused','importing','done','cancelled','failed') NOT NULL,
                total INT UNSIGNED NOT NULL DEFAULT 0,
                done INT UNSIGNED NOT NULL DEFAULT 0,
                new_rows INT UNSIGNED NOT NULL DEFAULT 0,
                changed_rows INT UNSIGNED NOT NULL DEFAULT 0,
                same_rows INT UNSIGNED NOT NULL DEFAULT 0,
                error_rows INT UNSIGNED NOT NULL DEFAULT 0,
                errors LONGTEXT NOT NULL DEFAULT '[]',
                preview LONGTEXT NOT NULL DEFAULT '[]',
                failure VARCHAR(300) NOT NULL DEFAULT '',
                cancel_requested BOOLEAN NOT NULL DEFAULT FALSE,
                started_by INT UNSIGNED NOT NULL,
                started_at DATETIME NOT NULL,
                ended_at DATETIME NULL,
                FOREIGN KEY (started_by) REFERENCES people(id)
            );

            ALTER TABLE units ADD COLUMN tag_code VARCHAR(40) NOT NULL DEFAULT '' AFTER engine,
            ADD COLUMN damage LONGTEXT NOT NULL DEFAULT '[]' AFTER clues,
            ADD COLUMN flags LONGTEXT NOT NULL DEFAULT '[]' AFTER damage,
            ADD COLUMN pressures LONGTEXT NOT NULL DEFAULT '{}' AFTER symptoms,
            ADD COLUMN proposed_grade CHAR(1) NULL AFTER grade,
            ADD COLUMN credit_revision LONGTEXT NULL AFTER credit_lines,
            ADD COLUMN pallet VARCHAR(20) NOT NULL DEFAULT '' AFTER rack,
            ADD INDEX (pallet),
            ADD CHECK (JSON_VALID(damage)),
            ADD CHECK (JSON_VALID(pressures)),
            ADD CHECK (credit_revision IS NULL OR JSON_VALID(credit_revision));
            ALTER TABLE converters ADD COLUMN hub VARCHAR(40) NOT NULL DEFAULT '' AFTER lockup,
            ADD COLUMN note VARCHAR(300) NOT NULL DEFAULT '' AFTER core_value;
            ALTER TABLE identifications ADD COLUMN answers LONGTEXT NOT NULL DEFAULT '{}' AFTER foreign_parts;
            CREATE TABLE core_debts (
                id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                customer_id INT UNSIGNED NOT NULL,
                build_id BIGINT UNSIGNED NOT NULL UNIQUE,
                family_id INT UNSIGNED NOT NULL,
                core_charge DECIMAL(10,2) NOT NULL,
                charged_on DATE NOT NULL,
                due_on DATE NOT NULL,
                settled_by_unit_id BIGINT UNSIGNED NULL UNIQUE,
                settled_at DATETIME NULL,
                INDEX (customer_id, settled_at),
                INDEX (due_on),
                FOREIGN KEY (customer_id) REFERENCES customers(id),
                FOREIGN KEY (build_id) REFERENCES builds(id),
                FOREIGN KEY (family_id) REFERENCES families(id),
                FOREIGN KEY (settled_by_unit_id) REFERENCES units(id),
                CHECK ((settled_by_unit_id IS NULL) = (settled_at IS NULL))
            );
            CREATE TABLE trainer_rounds (
                id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                person_id INT UNSIGNED NOT NULL,
                identification_id BIGINT UNSIGNED NOT NULL,
                family_id INT UNSIGNED NOT NULL,
                asked LONGTEXT NOT NULL DEFAULT '[]',
                answer VARCHAR(40) NULL,
                right_answer BOOLEAN NULL,
                question_score DECIMAL(6,4) NULL,
                effort DECIMAL(8,2) NOT NULL DEFAULT 0,
                engine_effort DECIMAL(8,2) NULL,
                started_at DATETIME NOT NULL,
                ended_at DATETIME NULL,
                INDEX (person_id, id),
                FOREIGN KEY (person_id) REFERENCES people(id),
                FOREIGN KEY (identification_id) REFERENCES identifications(id),
                FOREIGN KEY (family_id) REFERENCES families(id),
                CHECK ((answer IS NULL) = (ended_at IS NULL))
            );
            SQL
            ,
        );
    }
};
