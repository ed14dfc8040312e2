<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

return new class extends Migration
{
    public function up(): void
    {
        DB::connection('owner')->unprepared(<<<'SQL'
        CREATE TABLE units (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY, core_tag VARCHAR(20) NOT NULL UNIQUE, job_type_id INT UNSIGNED NOT NULL, ownership ENUM('exchange','customer') NOT NULL, customer_id INT UNSIGNED NULL,
            station ENUM('identify','desk','teardown','bench','cell','dispatch','field','returns','closed') NOT NULL, station_since DATETIME NOT NULL, rack VARCHAR(20) NOT NULL DEFAULT '',
            family_id INT UNSIGNED NULL, variant_id INT UNSIGNED NULL, identified_at DATETIME NULL, current_build_id BIGINT UNSIGNED NULL, promised_on DATE NULL,
            vehicle VARCHAR(120) NOT NULL DEFAULT '', vin VARCHAR(17) NULL, odometer_km INT UNSIGNED NULL, odometer_typed VARCHAR(30) NOT NULL DEFAULT '', engine VARCHAR(60) NOT NULL DEFAULT '', complaint TEXT NOT NULL, codes LONGTEXT NOT NULL DEFAULT '[]',
            sender ENUM('own','shop') NOT NULL DEFAULT 'own', sender_diagnosis TEXT NULL, clues LONGTEXT NOT NULL DEFAULT '{}', missing LONGTEXT NOT NULL DEFAULT '[]', failed_hard LONGTEXT NOT NULL DEFAULT '[]',
            repair_hours DECIMAL(6,2) NOT NULL DEFAULT 0, grade ENUM('A','B','C','D','X') NOT NULL, grade_reason VARCHAR(300) NOT NULL DEFAULT '', credit DECIMAL(10,2) NOT NULL, credit_lines LONGTEXT NOT NULL,
            weight_kg DECIMAL(7,2) NULL, note TEXT NOT NULL DEFAULT '', symptoms LONGTEXT NOT NULL DEFAULT '{}', received_at DATETIME NOT NULL, received_by INT UNSIGNED NOT NULL, version INT UNSIGNED NOT NULL DEFAULT 1,
            INDEX (station, station_since), INDEX (vin), INDEX (variant_id, station), INDEX (customer_id), INDEX (promised_on),
            FOREIGN KEY (job_type_id) REFERENCES job_types(id), FOREIGN KEY (customer_id) REFERENCES customers(id), FOREIGN KEY (family_id) REFERENCES families(id), FOREIGN KEY (variant_id) REFERENCES variants(id), FOREIGN KEY (received_by) REFERENCES people(id),
            CHECK (JSON_VALID(clues)), CHECK (JSON_VALID(missing)), CHECK (JSON_VALID(codes)), CHECK (credit >= 0), CHECK (grade <> 'X' OR credit = 0), CHECK (ownership = 'exchange' OR customer_id IS NOT NULL)
        );
        CREATE TABLE photos (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY, unit_id BIGINT UNSIGNED NOT NULL, place VARCHAR(80) NOT NULL, station VARCHAR(20) NOT NULL, path VARCHAR(200) NOT NULL, width SMALLINT UNSIGNED NOT NULL, height SMALLINT UNSIGNED NOT NULL, sha256 CHAR(64) NOT NULL, taken_by INT UNSIGNED NOT NULL, created_at DATETIME NOT NULL,
            INDEX (unit_id), FOREIGN KEY (unit_id) REFERENCES units(id), FOREIGN KEY (taken_by) REFERENCES people(id)
        );
        CREATE TABLE holds (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY, unit_id BIGINT UNSIGNED NOT NULL, kind VARCHAR(40) NOT NULL, reason VARCHAR(300) NOT NULL, lift_role VARCHAR(20) NOT NULL, placed_by INT UNSIGNED NOT NULL, placed_at DATETIME NOT NULL, lifted_by INT UNSIGNED NULL, lifted_at DATETIME NULL, lift_reason VARCHAR(300) NULL,
            INDEX (unit_id, lifted_at), FOREIGN KEY (unit_id) REFERENCES units(id), FOREIGN KEY (placed_by) REFERENCES people(id), FOREIGN KEY (lifted_by) REFERENCES people(id), CHECK ((lifted_at IS NULL) = (lifted_by IS NULL))
        );
        CREATE TABLE baskets (id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY, tag VARCHAR(20) NOT NULL UNIQUE, unit_id BIGINT UNSIGNED NULL, place VARCHAR(40) NOT NULL DEFAULT '', version INT UNSIGNED NOT NULL DEFAULT 1, INDEX (unit_id), FOREIGN KEY (unit_id) REFERENCES units(id));
        CREATE TABLE basket_items (id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY, basket_id BIGINT UNSIGNED NOT NULL, name VARCHAR(120) NOT NULL, count SMALLINT UNSIGNED NOT NULL, keep_together VARCHAR(40) NOT NULL DEFAULT '', INDEX (basket_id), FOREIGN KEY (basket_id) REFERENCES baskets(id));
        CREATE TABLE converters (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY, serial VARCHAR(40) NOT NULL UNIQUE, core_unit_id BIGINT UNSIGNED NULL, fitted_build_id BIGINT UNSIGNED NULL, state ENUM('core','checked','contaminated','fitted','exchanged') NOT NULL, stall_class VARCHAR(40) NOT NULL DEFAULT '', lockup VARCHAR(40) NOT NULL DEFAULT '', core_value DECIMAL(10,2) NOT NULL DEFAULT 0,
            INDEX (core_unit_id), INDEX (fitted_build_id), FOREIGN KEY (core_unit_id) REFERENCES units(id)
        );
        CREATE TABLE clue_answers (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY, unit_id BIGINT UNSIGNED NOT NULL, feature VARCHAR(60) NOT NULL, value VARCHAR(120) NOT NULL, answered_by INT UNSIGNED NOT NULL, answered_at DATETIME NOT NULL, UNIQUE (unit_id, feature), FOREIGN KEY (unit_id) REFERENCES units(id), FOREIGN KEY (answered_by) REFERENCES people(id)
        );
        CREATE TABLE identifications (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY, unit_id BIGINT UNSIGNED NOT NULL, outcome ENUM('confirmed','unknown') NOT NULL, variant_id INT UNSIGNED NULL, posterior DECIMAL(10,8) NULL, mixed BOOLEAN NOT NULL DEFAULT FALSE, foreign_parts LONGTEXT NOT NULL DEFAULT '[]', note VARCHAR(300) NOT NULL DEFAULT '', decided_by INT UNSIGNED NOT NULL, decided_at DATETIME NOT NULL,
            INDEX (unit_id), INDEX (variant_id), FOREIGN KEY (unit_id) REFERENCES units(id), FOREIGN KEY (variant_id) REFERENCES variants(id), FOREIGN KEY (decided_by) REFERENCES people(id), CHECK ((outcome = 'confirmed') = (variant_id IS NOT NULL))
        );
        CREATE TABLE builds (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY, unit_id BIGINT UNSIGNED NOT NULL, serial VARCHAR(20) NULL UNIQUE, generation SMALLINT UNSIGNED NOT NULL, parent_build_id BIGINT UNSIGNED NULL, customer_id INT UNSIGNED NULL, vehicle_id INT UNSIGNED NULL, package_id INT UNSIGNED NOT NULL, duty VARCHAR(40) NOT NULL,
            order_lines LONGTEXT NOT NULL, spec LONGTEXT NULL, price DECIMAL(10,2) NOT NULL, hours DECIMAL(6,2) NOT NULL, promised_on DATE NULL, state ENUM('draft','released','passed','shipped','returned','scrapped') NOT NULL, teardown_done_at DATETIME NULL, released_by INT UNSIGNED NULL, released_at DATETIME NULL, created_by INT UNSIGNED NOT NULL, created_at DATETIME NOT NULL, version INT UNSIGNED NOT NULL DEFAULT 1,
            UNIQUE (unit_id, generation), INDEX (package_id), INDEX (released_at), FOREIGN KEY (unit_id) REFERENCES units(id), FOREIGN KEY (parent_build_id) REFERENCES builds(id), FOREIGN KEY (customer_id) REFERENCES customers(id), FOREIGN KEY (vehicle_id) REFERENCES vehicles(id), FOREIGN KEY (package_id) REFERENCES packages(id), FOREIGN KEY (released_by) REFERENCES people(id), FOREIGN KEY (created_by) REFERENCES people(id),
            CHECK (JSON_VALID(order_lines)), CHECK (spec IS NULL OR JSON_VALID(spec)), CHECK ((serial IS NULL) = (state = 'draft')), CHECK ((spec IS NULL) = (state = 'draft'))
        );
        ALTER TABLE units ADD FOREIGN KEY (current_build_id) REFERENCES builds(id);
        CREATE TABLE step_marks (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY, unit_id BIGINT UNSIGNED NOT NULL, generation SMALLINT UNSIGNED NOT NULL, phase ENUM('teardown','assembly') NOT NULL, step VARCHAR(60) NOT NULL, counts LONGTEXT NOT NULL DEFAULT '{}', note VARCHAR(400) NOT NULL DEFAULT '', done_by INT UNSIGNED NOT NULL, done_at DATETIME NOT NULL,
            UNIQUE (unit_id, generation, phase, step), FOREIGN KEY (unit_id) REFERENCES units(id), FOREIGN KEY (done_by) REFERENCES people(id)
        );
        CREATE TABLE findings (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY, unit_id BIGINT UNSIGNED NOT NULL, generation SMALLINT UNSIGNED NOT NULL, part VARCHAR(80) NOT NULL, `condition` VARCHAR(60) NOT NULL, disposition ENUM('reuse','recondition','replace','scrap','shelf') NOT NULL, role ENUM('cause','collateral','none') NOT NULL, ours BOOLEAN NOT NULL DEFAULT FALSE, note VARCHAR(400) NOT NULL DEFAULT '', found_by INT UNSIGNED NOT NULL, found_at DATETIME NOT NULL, version INT UNSIGNED NOT NULL DEFAULT 1,
            UNIQUE (unit_id, generation, part), FOREIGN KEY (unit_id) REFERENCES units(id), FOREIGN KEY (found_by) REFERENCES people(id)
        );
        CREATE TABLE stock_lots (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY, part_id INT UNSIGNED NOT NULL, lot VARCHAR(40) NOT NULL, supplier VARCHAR(80) NOT NULL DEFAULT '', quantity INT NOT NULL, place VARCHAR(40) NOT NULL DEFAULT '', received_on DATE NOT NULL, UNIQUE (part_id, lot), INDEX (lot), FOREIGN KEY (part_id) REFERENCES parts(id), CHECK (quantity >= 0)
        );
        CREATE TABLE installed_parts (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY, build_id BIGINT UNSIGNED NOT NULL, part_id INT UNSIGNED NOT NULL, lot_id BIGINT UNSIGNED NULL, serial VARCHAR(40) NULL, count SMALLINT UNSIGNED NOT NULL, origin ENUM('lot','core','unit') NOT NULL, origin_unit_id BIGINT UNSIGNED NULL, place VARCHAR(60) NOT NULL, fitted_by INT UNSIGNED NOT NULL, fitted_at DATETIME NOT NULL, removed_at DATETIME NULL,
            INDEX (build_id, removed_at), INDEX (lot_id), INDEX (part_id), INDEX (serial), FOREIGN KEY (build_id) REFERENCES builds(id), FOREIGN KEY (part_id) REFERENCES parts(id), FOREIGN KEY (lot_id) REFERENCES stock_lots(id), FOREIGN KEY (origin_unit_id) REFERENCES units(id), FOREIGN KEY (fitted_by) REFERENCES people(id), CHECK (count > 0), CHECK ((origin = 'lot') = (lot_id IS NOT NULL))
        );
        CREATE TABLE pack_fits (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY, build_id BIGINT UNSIGNED NOT NULL, pack VARCHAR(60) NOT NULL, depth DECIMAL(18,9) NOT NULL, unit VARCHAR(6) NOT NULL, picks LONGTEXT NOT NULL, predicted DECIMAL(18,9) NOT NULL, fitted_by INT UNSIGNED NOT NULL, fitted_at DATETIME NOT NULL, undone_at DATETIME NULL, INDEX (build_id, pack), FOREIGN KEY (build_id) REFERENCES builds(id), FOREIGN KEY (fitted_by) REFERENCES people(id)
        );
        CREATE TABLE measurements (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY, build_id BIGINT UNSIGNED NOT NULL, kind ENUM('pack','end-play','air-check','torque','converter') NOT NULL, code VARCHAR(60) NOT NULL, value DECIMAL(18,9) NOT NULL, unit VARCHAR(10) NOT NULL, typed VARCHAR(60) NOT NULL, si DECIMAL(24,12) NOT NULL, window_min DECIMAL(18,9) NULL, window_max DECIMAL(18,9) NULL, inside BOOLEAN NOT NULL, gauge_id INT UNSIGNED NULL, note VARCHAR(300) NOT NULL DEFAULT '', measured_by INT UNSIGNED NOT NULL, measured_at DATETIME NOT NULL,
            INDEX (build_id, kind, code, id), FOREIGN KEY (build_id) REFERENCES builds(id), FOREIGN KEY (gauge_id) REFERENCES gauges(id), FOREIGN KEY (measured_by) REFERENCES people(id)
        );
        CREATE TABLE sign_offs (id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY, build_id BIGINT UNSIGNED NOT NULL, what VARCHAR(60) NOT NULL, loop_no SMALLINT UNSIGNED NOT NULL DEFAULT 1, signed_by INT UNSIGNED NOT NULL, signed_at DATETIME NOT NULL, UNIQUE (build_id, what, loop_no), FOREIGN KEY (build_id) REFERENCES builds(id), FOREIGN KEY (signed_by) REFERENCES people(id));
        CREATE TABLE dyno_runs (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY, build_id BIGINT UNSIGNED NOT NULL, loop_no SMALLINT UNSIGNED NOT NULL, state ENUM('queued','running','recorded','analysed','cancelled','failed') NOT NULL, program LONGTEXT NOT NULL, specimen VARCHAR(40) NOT NULL DEFAULT 'sound', cancel_requested BOOLEAN NOT NULL DEFAULT FALSE, progress DECIMAL(5,2) NOT NULL DEFAULT 0, trace_path VARCHAR(200) NULL, analysis LONGTEXT NULL, checks LONGTEXT NULL, error VARCHAR(300) NULL,
            verdict ENUM('pass','fail','conditional') NULL, verdict_reason VARCHAR(400) NOT NULL DEFAULT '', suspect VARCHAR(60) NOT NULL DEFAULT '', verdict_by INT UNSIGNED NULL, verdict_at DATETIME NULL, started_by INT UNSIGNED NOT NULL, queued_at DATETIME NOT NULL, ended_at DATETIME NULL,
            INDEX (build_id), INDEX (state), FOREIGN KEY (build_id) REFERENCES builds(id), FOREIGN KEY (started_by) REFERENCES people(id), FOREIGN KEY (verdict_by) REFERENCES people(id), CHECK (verdict IS NULL OR verdict_by IS NOT NULL)
        );
        CREATE TABLE shipments (id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY, build_id BIGINT UNSIGNED NOT NULL UNIQUE, customer_id INT UNSIGNED NULL, carrier VARCHAR(80) NOT NULL DEFAULT '', sheet LONGTEXT NOT NULL, warranty_until DATE NOT NULL, warranty_km INT UNSIGNED NOT NULL, shipped_by INT UNSIGNED NOT NULL, shipped_at DATETIME NOT NULL, INDEX (shipped_at), FOREIGN KEY (build_id) REFERENCES builds(id), FOREIGN KEY (customer_id) REFERENCES customers(id), FOREIGN KEY (shipped_by) REFERENCES people(id), CHECK (JSON_VALID(sheet)));
        CREATE TABLE commissionings (id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY, build_id BIGINT UNSIGNED NOT NULL UNIQUE, installed_on DATE NOT NULL, odometer_km INT UNSIGNED NOT NULL, items LONGTEXT NOT NULL, depth LONGTEXT NOT NULL, installer VARCHAR(120) NOT NULL, recorded_by INT UNSIGNED NOT NULL, recorded_at DATETIME NOT NULL, FOREIGN KEY (build_id) REFERENCES builds(id), FOREIGN KEY (recorded_by) REFERENCES people(id));
        CREATE TABLE returns (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY, number VARCHAR(20) NOT NULL UNIQUE, build_id BIGINT UNSIGNED NOT NULL, unit_id BIGINT UNSIGNED NOT NULL, complaint TEXT NOT NULL, codes LONGTEXT NOT NULL DEFAULT '[]', installed_on DATE NULL, failed_on DATE NOT NULL, odometer_km INT UNSIGNED NULL, observed LONGTEXT NOT NULL DEFAULT '{}', ranking LONGTEXT NULL, verdict VARCHAR(40) NULL, weights LONGTEXT NULL, verdict_note VARCHAR(600) NOT NULL DEFAULT '', cost_split LONGTEXT NULL, verdict_by INT UNSIGNED NULL, verdict_at DATETIME NULL, second_build_id BIGINT UNSIGNED NULL, opened_by INT UNSIGNED NOT NULL, opened_at DATETIME NOT NULL, version INT UNSIGNED NOT NULL DEFAULT 1,
            INDEX (build_id), INDEX (unit_id), INDEX (opened_at), INDEX (verdict), FOREIGN KEY (build_id) REFERENCES builds(id), FOREIGN KEY (unit_id) REFERENCES units(id), FOREIGN KEY (second_build_id) REFERENCES builds(id), FOREIGN KEY (opened_by) REFERENCES people(id), FOREIGN KEY (verdict_by) REFERENCES people(id), CHECK ((verdict IS NULL) = (verdict_by IS NULL)), CHECK (installed_on IS NULL OR failed_on >= installed_on)
        );
        SQL);
    }
};
