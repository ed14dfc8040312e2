<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

// Frozen specifications, programs, analyses and delivery sheets are read whole and one at a time: a tenth of the room.
return new class extends Migration
{
    private const COLUMNS = [
        'builds' => ['spec'],
        'dyno_runs' => ['program', 'analysis'],
        'shipments' => ['sheet'],
    ];

    public function up(): void
    {
        $owner = DB::connection('owner');
        foreach (self::COLUMNS as $table => $columns) {
            foreach ($columns as $column) {
                $is = $owner->selectOne(
                    'SELECT is_nullable FROM information_schema.columns WHERE table_schema = DATABASE() '.
                        'AND table_name = ? AND column_name = ?',
                    [$table, $column],
                );
                $null = $is->is_nullable === 'YES' ? 'NULL' : 'NOT NULL';
                $owner->statement("ALTER TABLE `$table` MODIFY `$column` LONGTEXT COMPRESSED $null");
            }
        }
    }
};
