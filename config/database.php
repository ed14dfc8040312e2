<?php

$yard = [
    'driver' => 'mariadb',
    'host' => env('DB_HOST', '127.0.0.1'),
    'port' => env('DB_PORT', '8083'),
    'database' => env('DB_DATABASE', 'yard'),
    'username' => env('DB_USERNAME', 'yard_app'),
    'password' => env('DB_PASSWORD', ''),
    'charset' => 'utf8mb4',
    'collation' => 'utf8mb4_uca1400_ai_ci',
    'prefix' => '',
    'strict' => true,
    'modes' => [
        'STRICT_ALL_TABLES',
        'ERROR_FOR_DIVISION_BY_ZERO',
        'NO_ENGINE_SUBSTITUTION',
        'NO_ZERO_DATE',
        'NO_ZERO_IN_DATE',
    ],
    'timezone' => '+00:00',
    // One round trip a query: the driver fills in the values. One statement a call, so that nothing can ride along.
    'options' => [PDO::ATTR_EMULATE_PREPARES => true, PDO::MYSQL_ATTR_MULTI_STATEMENTS => false],
];

return [
    'default' => 'yard',
    'connections' => [
        'yard' => $yard,
        // The same account over a second connection: progress is seen while a long transaction is still open.
        'progress' => $yard,
        // Owns the tables: migrations and grants only. The workers that serve requests do not know its password.
        'owner' => ['username' => 'yard_owner', 'password' => env('YARD_OWNER_PASSWORD', ''), 'options' => []] + $yard,
    ],
    'migrations' => ['table' => 'migrations', 'update_date_on_publish' => true],
];
