<?php

namespace App\Kernel\Ledger;

/** The tables of which the ledger knows every row. */
final class AccountedTables
{
    public const ALL = [
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
        'operations',
        'proofs',
        'recordings',
        'discrepancies',
        'findings',
        'finding_plates',
        'repairs',
        'swap_agreements',
        'second_grades',
        'reference_pictures',
        'extra_works',
        'vehicle_causes',
        'loan_parts',
        'tray_weighings',
        'pack_fits',
        'pack_fit_picks',
        'installed_parts',
        'held_parts',
        'measurements',
        'dyno_runs',
        'run_checks',
        'road_tests',
        'reference_units',
        'sign_offs',
        'shipments',
        'commissionings',
        'returns',
        'return_observations',
        'return_readings',
        'core_debts',
    ];

    /** Columns that say how far work has come, many times a second, and mean nothing once it is done. */
    public const FLEETING = ['dyno_runs' => ['progress']];
}
