<?php

declare(strict_types=1);

use Yard\Core\Dyno\Commands;
use Yard\Core\Dyno\LongTrace;
use Yard\Core\Dyno\Samples;

// A recorded run read and measured as the queue does it, in a process of its own: trace.php FILE RATIOS STEPS SECONDS.
require dirname(__DIR__, 2).'/vendor/autoload.php';

[, $path, $ratios, $steps, $seconds] = $argv;
$began = microtime(true);
$file = fopen($path, 'r') ?: throw new RuntimeException('No recording.');
$head = explode(',', trim((string) fgets($file)));
$measured = ['input_rpm', 'turbine_rpm', 'output_rpm', 'line_kpa', 'temp_degc'];
$samples = new Samples($head, 200.0, (float) $seconds, $measured);
$steps = json_decode((string) file_get_contents($steps), true);
$trace = new LongTrace(200.0, json_decode($ratios, true), Commands::of($steps, (float) $seconds));
while (($line = fgets($file)) !== false) {
    $samples->add(explode(',', trim($line)));
    if ($samples->held() >= LongTrace::STRETCH) {
        $samples->forget($trace->take($samples->channels()));
    }
}
$report = $trace->report($samples->channels());
echo json_encode([
    'all' => microtime(true) - $began,
    'peakMb' => memory_get_peak_usage() / 1e6,
    'gears' => array_map(fn (array $g): array => [$g['gear'], $g['ratioMean']], $report['gears']),
    'shifts' => array_map(
        fn (array $s): array => [$s['from'], $s['to'], $s['start_s'], $s['duration_s'], $s['tieUpDepth_pct']],
        $report['shifts'],
    ),
    'rise' => $report['temperature']['rise_per_min'] ?? null,
]);
