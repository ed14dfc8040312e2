<?php

use App\Insight\Queries\FieldKeys;
use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

// Return rates are kept as they happen; cores that are owed are found without reading those that were settled.
return new class extends Migration
{
    public function up(): void
    {
        $owner = DB::connection('owner');
        $owner->unprepared(<<<'SQL'
            CREATE TABLE field_counts (
                variant_id INT UNSIGNED NOT NULL,
                package_id INT UNSIGNED NOT NULL,
                builder_id INT UNSIGNED NOT NULL,
                shipped INT UNSIGNED NOT NULL DEFAULT 0,
                returned INT UNSIGNED NOT NULL DEFAULT 0,
                PRIMARY KEY (variant_id, package_id, builder_id)
            );
            ALTER TABLE core_debts ADD INDEX owed (settled_at, customer_id, due_on, core_charge);
            ALTER TABLE units ADD INDEX of_customer (customer_id, ownership, credit);
            SQL);
        FieldKeys::recount($owner);
    }
};
