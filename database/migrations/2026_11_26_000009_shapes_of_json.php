<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

// JSON that stays is held to its shape by the database: a list is a list, a record a record.
return new class extends Migration
{
    private const LISTS = [
        'commissionings' => ['items'],
        'conversions' => ['forbids', 'parts', 'requires', 'steps'],
        'csv_imports' => ['errors', 'preview'],
        'dyno_runs' => ['checks'],
        'identifications' => ['foreign_parts'],
        'job_types' => ['route'],
        'pack_fits' => ['picks'],
        'parts' => ['aliases'],
        'returns' => ['codes', 'ranking'],
        'specs' => ['claims'],
        'trainer_rounds' => ['asked'],
        'units' => ['codes', 'credit_lines', 'damage', 'failed_hard', 'flags', 'missing'],
        'variants' => ['facts'],
        'vehicles' => ['engine_curve', 'facts'],
    ];

    private const RECORDS = [
        'builds' => ['order_lines', 'spec'],
        'commissionings' => ['depth'],
        'dyno_runs' => ['analysis', 'program'],
        'families' => ['body', 'train'],
        'options' => ['body'],
        'packages' => ['body'],
        'returns' => ['cost_split'],
        'shipments' => ['sheet'],
        'specs' => ['body', 'signed'],
        'units' => ['credit_revision'],
    ];

    public function up(): void
    {
        $owner = DB::connection('owner');
        $owner->unprepared('SET @@system_versioning_alter_history = KEEP');
        $checks = [];
        foreach ([[self::LISTS, 'ARRAY'], [self::RECORDS, 'OBJECT']] as [$tables, $type]) {
            foreach ($tables as $table => $columns) {
                foreach ($columns as $column) {
                    $checks[$table][] = "ADD CONSTRAINT {$column}_is_".strtolower($type).
                        " CHECK (`$column` IS NULL OR JSON_TYPE(`$column`) = '$type')";
                }
            }
        }
        foreach ($checks as $table => $constraints) {
            $owner->unprepared("ALTER TABLE `$table` ".implode(', ', $constraints));
        }
    }
};
