#!/usr/bin/env php
<?php
declare(strict_types=1);

use Yard\Core\Tests\TestCell;

// The windows of a test program from good units of the demo pack: each family's program is run by units whose packs lie
// within their windows, and every number gets the spread they show, and a margin. Writes into the pack.
//   php tools/rig/reference.php [UNITS]

require dirname(__DIR__, 2).'/vendor/autoload.php';
require dirname(__DIR__, 2).'/core/tests/TestCell.php';

/** Check => least margin on either side, in its unit, and as a share of the number; the side that is not limited. */
const MARGINS = [
    'Shift duration' => [0.03, 0.3, ''],
    'Shift delay' => [0.05, 0.15, ''],
    'Flare' => [25.0, 0.0, 'min'],
    'Tie-up' => [1.5, 0.0, 'min'],
    'Line pressure' => [15.0, 0.05, ''],
    'Line pressure ripple' => [6.0, 0.0, 'min'],
    'Line pressure above its mean' => [25.0, 0.0, 'min'],
    'Cooler flow' => [0.5, 0.12, 'max'],
    'Torque out over torque in' => [0.04, 0.0, ''],
    'Time to engage' => [0.08, 0.2, ''],
    'Lock-up comes' => [0.15, 0.3, 'min'],
    'Lock-up slip' => [6.0, 0.0, 'min'],
    'Lock-up shudder, 4 to 25 Hz' => [2.0, 0.0, 'min'],
    'Sensor stands still' => [0.6, 0.0, 'min'],
];

$units = (int) ($argv[1] ?? 10);
$file = dirname(__DIR__, 2).'/database/demo/catalog.json';
$text = (string) file_get_contents($file);
foreach (['RD4', 'OV3', 'LP6', 'TX6', 'GV5'] as $code) {
    $seen = $check = [];
    for ($seed = 1; $seed <= $units; $seed++) {
        foreach (TestCell::run($code, [], 7000 + $seed)['readings'] as $reading) {
            $seen[$reading['key']][] = $reading['value'];
            $check[$reading['key']] = $reading['check'];
        }
    }
    $windows = [];
    foreach ($seen as $key => $values) {
        if (in_array(null, $values, true) || count($values) < $units) {
            continue; // what good units do not always give is no measure
        }
        [$margin, $share, $open] = MARGINS[$check[$key]];
        $mean = array_sum($values) / count($values);
        $sd = sqrt(array_sum(array_map(fn ($v) => ($v - $mean) ** 2, $values)) / (count($values) - 1));
        $wide = max(4.5 * $sd, $margin, $share * abs($mean));
        $decimals = abs($mean) + $wide < 20.0 ? 3 : 0;
        $window = ['min' => round($mean - $wide, $decimals), 'max' => round($mean + $wide, $decimals)];
        $windows[$key] = array_diff_key($window, [$open => 0]);
    }
    $json = json_encode($windows, JSON_UNESCAPED_SLASHES);
    // The pack has a line for each field of a program.
    $at = (int) strpos($text, "\n            \"packageLimits\"", (int) strpos($text, "\n      \"code\": \"$code\""));
    $before = (string) preg_replace('/\n            "reference": .*$/', '', substr($text, 0, $at));
    $text = "$before\n            \"reference\": $json,".substr($text, $at);
    printf("%s: %d windows of %d readings\n", $code, count($windows), count($seen));
}
file_put_contents($file, $text);
