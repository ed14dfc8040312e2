#!/usr/bin/env php
<?php
declare(strict_types=1);

use Symfony\Component\Process\Process;
use Yard\Core\Tests\TestCell;

// The windows of a test program from good units of the demo pack: each family's program is run by units whose packs lie
// within their windows, and every number gets the spread they show, and a margin. Writes into the pack.
//   php tools/rig/reference.php [UNITS]             the family's own hardware, and every hardware its packages build
//   php tools/rig/reference.php UNITS FAMILY        one family, as JSON, without writing

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

const FAMILIES = ['RD4', 'OV3', 'LP6', 'TX6', 'GV5'];

/** @return array<string, array{min?: float, max?: float}> reading => window */
function windows(string $family, int $units, string $variant = '', array $options = []): array
{
    $seen = $check = [];
    for ($seed = 1; $seed <= $units; $seed++) {
        foreach (TestCell::run($family, [], 7000 + $seed, $variant, $options)['readings'] as $reading) {
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

    return $windows;
}

/**
 * What the packages put into the variants, each different hardware once.
 *
 * @return array<string, array{variants: list<string>, options: list<string>}>
 */
function builds(string $code): array
{
    $family = TestCell::family($code);
    $options = array_column($family['options'], null, 'code');
    $out = [];
    foreach ($family['variants'] as $variant) {
        foreach ($family['packages'] as $package) {
            $in = array_values(array_filter(
                $package['body']['options'],
                fn (string $o): bool => isset($options[$o]['body']['power']) && goesIn($options[$o]['body'], $variant),
            ));
            sort($in);
            $hardware = TestCell::hardware($code, $variant['code'], $in);
            // A one-way clutch that holds more shows in no number of a good unit.
            $shows = array_filter($hardware['capacities'], fn (array $c): bool => $c['kind'] !== 'fixed');
            $key = md5(json_encode([$in, ['capacities' => $shows] + $hardware], JSON_THROW_ON_ERROR));
            $out[$key]['options'] = $in;
            $out[$key]['variants'][] = $variant['code'];
            $out[$key]['variants'] = array_values(array_unique($out[$key]['variants']));
        }
    }

    return $out;
}

function goesIn(array $option, array $variant): bool
{
    $has = $variant['hardware'];
    $only = $option['variantOnly'] ?? null;
    $converter = $option['converter'] ?? null;

    return ($only === null || in_array($variant['code'], $only, true)) &&
        ($converter === null ||
            $converter['hub'] === $has['hub'] && in_array($has['lockup'], $converter['lockup'], true));
}

/** @return array{reference: array<string, mixed>, references: list<array<string, mixed>>} */
function family(string $code, int $units): array
{
    $references = [];
    foreach (builds($code) as $build) {
        $of = windows($code, $units, $build['variants'][0], $build['options']);
        $references[] = $build + ['units' => $units, 'windows' => $of];
        fprintf(STDERR, "%s %s: %s, %d windows\n", $code, implode(' ', $build['variants']),
            implode(' ', $build['options']), count($of));
    }

    return ['reference' => windows($code, $units), 'references' => $references];
}

$units = (int) ($argv[1] ?? 10);
if (isset($argv[2])) {
    echo json_encode(family($argv[2], $units), JSON_UNESCAPED_SLASHES);
    exit;
}
$compiled = ['-d', 'opcache.enable_cli=1', '-d', 'opcache.jit_buffer_size=64M', '-d', 'opcache.jit=tracing'];
[$waiting, $running, $found] = [FAMILIES, [], []];
while ($waiting !== [] || $running !== []) {
    while ($waiting !== [] && count($running) < 2) {
        $code = array_shift($waiting);
        $running[$code] = new Process([PHP_BINARY, ...$compiled, __FILE__, (string) $units, $code], timeout: null);
        $running[$code]->start();
    }
    foreach ($running as $code => $process) {
        fwrite(STDERR, $process->getIncrementalErrorOutput());
        if (! $process->isRunning()) {
            $process->isSuccessful() || throw new RuntimeException($process->getErrorOutput());
            $found[$code] = json_decode($process->getOutput(), true, flags: JSON_THROW_ON_ERROR);
            unset($running[$code]);
        }
    }
    usleep(200_000);
}

// The pack has a line for each field of a program, and one for each hardware.
$file = dirname(__DIR__, 2).'/database/demo/catalog.json';
$text = (string) file_get_contents($file);
foreach ($found as $code => ['reference' => $reference, 'references' => $references]) {
    $line = fn (mixed $of): string => json_encode($of, JSON_UNESCAPED_SLASHES | JSON_THROW_ON_ERROR);
    $all = implode(",\n              ", array_map($line, $references));
    $from = (int) strpos($text, "\n      \"code\": \"$code\"");
    $at = (int) strpos($text, "\n            \"packageLimits\"", $from);
    $family = preg_replace('/\n            "reference": .*$/s', '', substr($text, $from, $at - $from));
    $own = "\n            \"reference\": {$line($reference)},";
    $built = "\n            \"references\": [\n              $all\n            ],";
    $text = substr($text, 0, $from).$family.$own.$built.substr($text, $at);
}
file_put_contents($file, $text);
