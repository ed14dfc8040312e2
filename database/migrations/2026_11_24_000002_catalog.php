<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

// System-versioned throughout: "the window in force when this unit was built" is a query (FOR SYSTEM_TIME AS OF).
return new class extends Migration
{
    public function up(): void
    {
        DB::connection('owner')->unprepared(
            <<<'SQL'
            CREATE TABLE job_types (
                id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                code VARCHAR(40) NOT NULL UNIQUE,
                name VARCHAR(80) NOT NULL,
                route LONGTEXT NOT NULL,
                warranty_days INT UNSIGNED NOT NULL,
                warranty_km INT UNSIGNED NOT NULL,
                note VARCHAR(300) NOT NULL DEFAULT '',
                CHECK (JSON_VALID(route))
            ) WITH SYSTEM VERSIONING;
            CREATE TABLE families (
                id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                code VARCHAR(40) NOT NULL UNIQUE,
                name VARCHAR(120) NOT NULL,
                topology VARCHAR(120) NOT NULL,
                train LONGTEXT NOT NULL,
                body LONGTEXT NOT NULL,
                CHECK (JSON_VALID(train)),
                CHECK (JSON_VALID(body))
            ) WITH SYSTEM VERSIONING;
            CREATE TABLE variants (
                id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                family_id INT UNSIGNED NOT NULL,
                code VARCHAR(40) NOT NULL UNIQUE,
                name VARCHAR(120) NOT NULL,
                from_year SMALLINT UNSIGNED NOT NULL,
                to_year SMALLINT UNSIGNED NOT NULL,
                prior DECIMAL(10,4) NOT NULL,
                expect LONGTEXT NOT NULL,
                core_charge DECIMAL(10,2) NOT NULL,
                scrap_value DECIMAL(10,2) NOT NULL,
                FOREIGN KEY (family_id) REFERENCES families(id),
                CHECK (JSON_VALID(expect)),
                CHECK (prior >= 0)
            ) WITH SYSTEM VERSIONING;
            CREATE TABLE vehicles (
                id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                code VARCHAR(40) NOT NULL UNIQUE,
                maker VARCHAR(60) NOT NULL,
                model VARCHAR(60) NOT NULL,
                from_year SMALLINT UNSIGNED NOT NULL,
                to_year SMALLINT UNSIGNED NOT NULL,
                engine VARCHAR(60) NOT NULL,
                drive VARCHAR(20) NOT NULL,
                wmi CHAR(3) NOT NULL,
                engine_torque_nm DECIMAL(8,2) NOT NULL,
                mass_kg DECIMAL(8,1) NOT NULL,
                axle_ratio DECIMAL(6,3) NOT NULL,
                INDEX (maker, model)
            ) WITH SYSTEM VERSIONING;
            CREATE TABLE applications (
                id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                variant_id INT UNSIGNED NOT NULL,
                vehicle_id INT UNSIGNED NOT NULL,
                from_year SMALLINT UNSIGNED NOT NULL,
                to_year SMALLINT UNSIGNED NOT NULL,
                source VARCHAR(160) NOT NULL,
                edition VARCHAR(60) NOT NULL DEFAULT '',
                confidence ENUM('documented','shop-measured','borrowed','recalled','unverified') NOT NULL,
                UNIQUE (vehicle_id, variant_id, from_year),
                INDEX (variant_id),
                FOREIGN KEY (variant_id) REFERENCES variants(id),
                FOREIGN KEY (vehicle_id) REFERENCES vehicles(id)
            ) WITH SYSTEM VERSIONING;
            CREATE TABLE parts (
                id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                number VARCHAR(40) NOT NULL UNIQUE,
                name VARCHAR(120) NOT NULL,
                kind ENUM('soft','hard','selective','fastener','converter','fluid','outside','kit') NOT NULL,
                price DECIMAL(10,2) NOT NULL,
                thickness DECIMAL(12,6) NULL,
                thickness_unit VARCHAR(6) NULL,
                aliases LONGTEXT NOT NULL DEFAULT '[]',
                single_use BOOLEAN NOT NULL DEFAULT FALSE,
                FULLTEXT (number, name, aliases),
                CHECK (price >= 0)
            ) WITH SYSTEM VERSIONING;
            CREATE TABLE kit_items (
                kit_id INT UNSIGNED NOT NULL,
                part_id INT UNSIGNED NOT NULL,
                count SMALLINT UNSIGNED NOT NULL,
                PRIMARY KEY (kit_id, part_id),
                INDEX (part_id),
                FOREIGN KEY (kit_id) REFERENCES parts(id),
                FOREIGN KEY (part_id) REFERENCES parts(id),
                CHECK (kit_id <> part_id AND count > 0)
            ) WITH SYSTEM VERSIONING;
            CREATE TABLE supersessions (
                old_part_id INT UNSIGNED NOT NULL,
                new_part_id INT UNSIGNED NOT NULL,
                both_ways BOOLEAN NOT NULL,
                source VARCHAR(160) NOT NULL,
                PRIMARY KEY (old_part_id, new_part_id),
                INDEX (new_part_id),
                FOREIGN KEY (old_part_id) REFERENCES parts(id),
                FOREIGN KEY (new_part_id) REFERENCES parts(id),
                CHECK (old_part_id <> new_part_id)
            ) WITH SYSTEM VERSIONING;
            CREATE TABLE options (
                id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                family_id INT UNSIGNED NOT NULL,
                code VARCHAR(60) NOT NULL,
                name VARCHAR(120) NOT NULL,
                price DECIMAL(10,2) NOT NULL,
                hours DECIMAL(6,2) NOT NULL,
                body LONGTEXT NOT NULL,
                UNIQUE (family_id, code),
                FOREIGN KEY (family_id) REFERENCES families(id),
                CHECK (JSON_VALID(body))
            ) WITH SYSTEM VERSIONING;
            CREATE TABLE packages (
                id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                family_id INT UNSIGNED NOT NULL,
                code VARCHAR(60) NOT NULL,
                name VARCHAR(120) NOT NULL,
                duty VARCHAR(40) NOT NULL,
                base_price DECIMAL(10,2) NOT NULL,
                base_hours DECIMAL(6,2) NOT NULL,
                body LONGTEXT NOT NULL,
                UNIQUE (family_id, code),
                FOREIGN KEY (family_id) REFERENCES families(id),
                CHECK (JSON_VALID(body))
            ) WITH SYSTEM VERSIONING;
            CREATE TABLE specs (
                id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                family_id INT UNSIGNED NOT NULL,
                kind
                    ENUM('feature','pack','end-play','fastener','air-check','teardown-step',
                        'assembly-step','test-program','finding','converter')
                    NOT NULL,
                code VARCHAR(60) NOT NULL,
                position INT UNSIGNED NOT NULL,
                name VARCHAR(160) NOT NULL,
                body LONGTEXT NOT NULL,
                source VARCHAR(160) NOT NULL,
                edition VARCHAR(60) NOT NULL DEFAULT '',
                confidence ENUM('documented','shop-measured','borrowed','recalled','unverified') NOT NULL,
                UNIQUE (family_id, kind, code),
                INDEX (family_id, kind, position),
                FOREIGN KEY (family_id) REFERENCES families(id),
                CHECK (JSON_VALID(body))
            ) WITH SYSTEM VERSIONING;
            CREATE TABLE evidence_models (
                id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                code VARCHAR(60) NOT NULL UNIQUE,
                body LONGTEXT NOT NULL,
                source VARCHAR(200) NOT NULL,
                CHECK (JSON_VALID(body))
            ) WITH SYSTEM VERSIONING;
            SQL
            ,
        );
    }
};
