<?php

// Prints the lines of code by part and the share of tests (blank lines left out, generated files and data not counted).
$parts = [
    'core' => ['core/src', 'core/bin'],
    'application' => [
        'app',
        'bootstrap',
        'config',
        'database/migrations',
        'routes',
        'rig',
        'shims/src',
        'deploy',
        'tools',
        'public/index.php',
        'artisan',
        'yard',
    ],
    'interface' => ['resources/ui'],
    'tests' => ['core/tests', 'tests'],
];
$root = dirname(__DIR__);
$tracked = array_filter(explode("\n", (string) shell_exec('git -C '.escapeshellarg($root).' ls-files')));
$totals = array_fill_keys(array_keys($parts), 0);
foreach ($tracked as $file) {
    $isTest = str_contains($file, '.test.ts');
    foreach ($parts as $part => $folders) {
        foreach ($folders as $folder) {
            if (
                ($file === $folder || str_starts_with($file, "$folder/")) &&
                preg_match('/(\.(php|ts|tsx|css|sh|template)|artisan|yard|calc)$/', $file)
            ) {
                $totals[$isTest ? 'tests' : $part] += count(
                    array_filter(file("$root/$file"), fn ($l) => trim($l) !== ''),
                );

                continue 3;
            }
        }
    }
}
$sum = array_sum($totals);
foreach ($totals as $part => $lines) {
    printf("%-12s %6d  %4.1f %%\n", $part, $lines, (100 * $lines) / $sum);
}
printf("%-12s %6d\n", 'all', $sum);
