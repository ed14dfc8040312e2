<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

// One word for a station everywhere. Units stand at stations by name; which names there are says App\Yard\StationName.
return new class extends Migration
{
    public function up(): void
    {
        DB::connection('owner')->unprepared(
            <<<'SQL'
            ALTER TABLE units MODIFY station VARCHAR(20) CHARACTER SET ascii NOT NULL;
            UPDATE units SET station = CASE station
                WHEN 'identify' THEN 'identification' WHEN 'desk' THEN 'ordering'
                WHEN 'bench' THEN 'assembly' WHEN 'cell' THEN 'dyno' ELSE station END;
            UPDATE photos SET station = CASE station
                WHEN 'identify' THEN 'identification' WHEN 'desk' THEN 'ordering' WHEN 'bench' THEN 'assembly'
                WHEN 'cell' THEN 'dyno' ELSE station END;
            ALTER TABLE people MODIFY role
                ENUM('manager','receiver','teardown','builder','cell','dyno','returns','viewer') NOT NULL;
            UPDATE people SET role = 'dyno' WHERE role = 'cell';
            ALTER TABLE people MODIFY role
                ENUM('manager','receiver','teardown','builder','dyno','returns','viewer') NOT NULL;
            UPDATE holds SET lift_role = 'dyno' WHERE lift_role = 'cell';
            UPDATE job_types SET route = REPLACE(REPLACE(REPLACE(REPLACE(
                route, '"identify"', '"identification"'), '"desk"', '"ordering"'), '"bench"', '"assembly"'),
                '"cell"', '"dyno"');

            RENAME TABLE baskets TO trays, basket_items TO tray_items;
            ALTER TABLE tray_items CHANGE basket_id tray_id BIGINT UNSIGNED NOT NULL;

            -- Answers kept for a repeated request speak the old words; a request that old is not repeated any more.
            DELETE FROM idempotency_keys;

            CREATE TABLE number_sequences (
                name VARCHAR(40) CHARACTER SET ascii PRIMARY KEY,
                last BIGINT UNSIGNED NOT NULL
            );
            INSERT INTO number_sequences (name, last)
                SELECT CONCAT('serial-', SUBSTRING(serial, 4, 2)), MAX(CAST(SUBSTRING(serial, 7) AS UNSIGNED))
                FROM builds WHERE serial REGEXP '^VY-[0-9]{2}-[0-9]+$' GROUP BY SUBSTRING(serial, 4, 2);
            INSERT INTO number_sequences (name, last)
                SELECT 'return', MAX(CAST(SUBSTRING(number, 3) AS UNSIGNED)) FROM returns HAVING COUNT(*) > 0;
            SQL
            ,
        );
    }
};
