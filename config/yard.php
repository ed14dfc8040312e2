<?php

return [
    'state' => env('YARD_STATE', dirname(__DIR__).'/storage/shop'),
    // The test cells: name => port of the rig.
    'cells' => array_filter([
        'A' => (int) env('YARD_RIG_PORT', 8081),
        'B' => (int) env('YARD_RIG_B_PORT', 0),
    ]),
    'gateway_port' => (int) env('YARD_GATEWAY_PORT', 8082),
    'page_size' => 30,
    // Over which connection the progress of long work is written while its transaction is open.
    'progress_connection' => 'progress',
];
