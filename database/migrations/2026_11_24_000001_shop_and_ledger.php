<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

return new class extends Migration
{
    public function up(): void
    {
        DB::connection('owner')->unprepared(
            <<<'SQL'
            CREATE TABLE people (
                id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                badge VARCHAR(20) NOT NULL UNIQUE,
                name VARCHAR(80) NOT NULL,
                role ENUM('manager','receiver','teardown','builder','cell','returns','viewer') NOT NULL,
                pin_hash VARCHAR(100) NOT NULL,
                failed_pins TINYINT UNSIGNED NOT NULL DEFAULT 0,
                locked_until DATETIME NULL,
                active BOOLEAN NOT NULL DEFAULT TRUE
            );
            CREATE TABLE customers (
                id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                code VARCHAR(20) NOT NULL UNIQUE,
                name VARCHAR(120) NOT NULL,
                kind ENUM('workshop','fleet','owner','dealer') NOT NULL,
                city VARCHAR(80) NOT NULL DEFAULT ''
            );
            CREATE TABLE gauges (
                id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                code VARCHAR(20) NOT NULL UNIQUE,
                name VARCHAR(80) NOT NULL,
                kind VARCHAR(20) NOT NULL,
                unit VARCHAR(10) NOT NULL,
                resolution DECIMAL(18,9) NOT NULL,
                range_min DECIMAL(18,9) NOT NULL,
                range_max DECIMAL(18,9) NOT NULL,
                calibrated_until DATE NOT NULL,
                CHECK (resolution > 0 AND range_min < range_max)
            );
            CREATE TABLE house_rules (
                id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                code VARCHAR(60) NOT NULL UNIQUE,
                question VARCHAR(160) NOT NULL,
                choice VARCHAR(60) NOT NULL,
                choices LONGTEXT NOT NULL,
                reason VARCHAR(400) NOT NULL DEFAULT '',
                set_by INT UNSIGNED NULL,
                version INT UNSIGNED NOT NULL DEFAULT 1,
                FOREIGN KEY (set_by) REFERENCES people(id)
            ) WITH SYSTEM VERSIONING;

            CREATE TABLE ledger_streams (
                stream VARCHAR(80) PRIMARY KEY,
                seq INT UNSIGNED NOT NULL,
                hash CHAR(64) CHARACTER SET ascii NOT NULL
            );
            CREATE TABLE ledger (
                id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                stream VARCHAR(80) NOT NULL,
                seq INT UNSIGNED NOT NULL,
                at DATETIME(6) NOT NULL,
                tablet_at DATETIME(6) NULL,
                unit_id BIGINT UNSIGNED NULL,
                badge VARCHAR(20) NULL,
                station VARCHAR(40) NULL,
                kind VARCHAR(60) NOT NULL,
                payload LONGTEXT NOT NULL,
                prev_hash CHAR(64) CHARACTER SET ascii NOT NULL,
                hash CHAR(64) CHARACTER SET ascii NOT NULL,
                UNIQUE (stream, seq),
                INDEX (unit_id, id),
                INDEX (kind, id),
                CHECK (JSON_VALID(payload))
            );
            CREATE TABLE idempotency_keys (
                person_id INT UNSIGNED NOT NULL,
                `key` VARCHAR(100) NOT NULL,
                fingerprint CHAR(64) CHARACTER SET ascii NOT NULL,
                status SMALLINT UNSIGNED NULL,
                body LONGTEXT NULL,
                created_at DATETIME NOT NULL,
                PRIMARY KEY (person_id, `key`), INDEX (created_at)
            );
            CREATE TABLE jobs (
                id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                queue VARCHAR(60) NOT NULL,
                payload LONGTEXT NOT NULL,
                attempts TINYINT UNSIGNED NOT NULL,
                reserved_at INT UNSIGNED NULL,
                available_at INT UNSIGNED NOT NULL,
                created_at INT UNSIGNED NOT NULL,
                INDEX (queue)
            );
            CREATE TABLE failed_jobs (
                id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                uuid VARCHAR(60) NOT NULL UNIQUE,
                connection TEXT NOT NULL,
                queue TEXT NOT NULL,
                payload LONGTEXT NOT NULL,
                exception LONGTEXT NOT NULL,
                failed_at TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP
            );
            SQL
            ,
        );
    }
};
