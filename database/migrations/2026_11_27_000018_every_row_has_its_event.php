<?php

use App\Kernel\Ledger\Change;
use App\Kernel\Ledger\Ledger;
use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

// Events carry what became of rows. A shop that exists begins with its rows as they stand.
return new class extends Migration
{
    private const ROWS_AT_ONCE = 100;

    /** The accounted tables of that day. */
    private const TABLES = [
        'units',
        'builds',
        'intake_parts',
        'credit_lines',
        'trouble_codes',
        'damage_marks',
        'photos',
        'holds',
        'trays',
        'tray_items',
        'converters',
        'clue_answers',
        'identifications',
        'order_options',
        'step_marks',
        'findings',
        'pack_fits',
        'pack_fit_picks',
        'installed_parts',
        'measurements',
        'dyno_runs',
        'run_checks',
        'sign_offs',
        'shipments',
        'commissionings',
        'returns',
        'return_observations',
        'return_readings',
        'core_debts',
    ];

    public function up(): void
    {
        DB::connection('owner')->unprepared(
            'ALTER TABLE ledger ADD changes LONGTEXT COMPRESSED NULL, ADD CONSTRAINT changes_are_json '
                .'CHECK (changes IS NULL OR JSON_VALID(changes))',
        );
        $ledger = app(Ledger::class);
        foreach (self::TABLES as $table) {
            $written = DB::connection('owner')
                ->table('information_schema.columns')
                ->whereRaw('table_schema = DATABASE()')
                ->where('table_name', $table)
                ->where('extra', 'not like', '%GENERATED%')
                ->pluck('column_name')
                ->flip();
            DB::table($table)->chunkById(
                self::ROWS_AT_ONCE,
                fn ($rows) => $ledger->within(function () use ($ledger, $table, $rows, $written): void {
                    $ledger->record('rows', 'rows.taken-over', ['table' => $table, 'rows' => count($rows)]);
                    foreach ($rows as $row) {
                        $columns = array_intersect_key((array) $row, $written->all());
                        $ledger->changed(new Change($table, (int) $row->id, $columns));
                    }
                }),
            );
        }
    }
};
