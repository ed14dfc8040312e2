#!/usr/bin/env php
<?php
declare(strict_types=1);

use Yard\Rig\Specimen;

// The simulated test rig: a process of its own that knows nothing of the application but the wire format in
// docs/formats/rig.md (JSON, one message a line, TCP on loopback). `--once FILE` writes a whole run as CSV instead.

require __DIR__.'/Specimen.php';
ini_set('serialize_precision', '-1');

const COLUMNS = ['t_s', 'input_rpm', 'turbine_rpm', 'output_rpm', 'line_kpa', 'temp_degc'];
$options = getopt('', ['port:', 'pace:', 'once:']);

/** @param  array<string, mixed>  $m */
$specimen = static fn (array $m): Specimen => new Specimen(
    array_map(floatval(...), $m['ratios'] ?? []),
    $m['program'] ?? [],
    (string) ($m['specimen'] ?? 'sound'),
    (string) ($m['run'] ?? '0'),
);

if (isset($options['once'])) {
    $message = json_decode((string) file_get_contents($options['once']), true);
    fputcsv(STDOUT, COLUMNS, escape: '');
    foreach ($specimen($message)->run((float) $message['rate_hz'], (float) $message['end']) as $row) {
        fputcsv(STDOUT, $row, escape: '');
    }
    exit(0);
}

$pace = (float) ($options['pace'] ?? getenv('YARD_RIG_PACE') ?: 6.0); // simulated seconds a second
$server = @stream_socket_server('tcp://127.0.0.1:'.(int) ($options['port'] ?? 8081), $code, $why);
if ($server === false) {
    fwrite(STDERR, "The rig cannot listen: $why.\n");
    exit(1);
}
$client = null;
$buffer = '';
$loaded = null;
/** @var Generator<int, list<float>>|null $run */
$run = null;
$startedAt = 0.0;
$send = static function (array $message) use (&$client): void {
    if ($client !== null) {
        @fwrite($client, json_encode($message)."\n");
    }
};
while (true) {
    $read = $client === null ? [$server] : [$client, $server];
    $write = $except = null;
    if (@stream_select($read, $write, $except, 0, $run === null ? 200_000 : 20_000) === false) {
        continue;
    }
    if (in_array($server, $read, true)) {
        $incoming = @stream_socket_accept($server, 0);
        if ($incoming !== false && $client !== null) {
            fwrite(
                $incoming,
                json_encode(['type' => 'error', 'message' => 'The rig is taken by another gateway.'])."\n",
            );
            fclose($incoming);
        } elseif ($incoming !== false) {
            $client = $incoming;
            stream_set_blocking($client, false);
            $send([
                'type' => 'hello',
                'rig' => 'simulated',
                'pace' => $pace,
                'columns' => COLUMNS,
                'specimens' => array_keys(Specimen::FAULTS),
            ]);
        }
    }
    if ($client !== null && in_array($client, $read, true)) {
        $chunk = fread($client, 65536);
        if ($chunk === '' || $chunk === false) {
            if (feof($client)) {
                fclose($client);
                [$client, $buffer, $run, $loaded] = [null, '', null, null]; // nobody watches: the rig stops
            }
        } else {
            $buffer .= $chunk;
        }
        while (($end = strpos($buffer, "\n")) !== false) {
            $message = json_decode(substr($buffer, 0, $end), true);
            $buffer = substr($buffer, $end + 1);
            try {
                switch ($message['type'] ?? '') {
                    case 'load':
                        $loaded = $specimen($message)->run((float) $message['rate_hz'], (float) $message['end']);
                        $send(['type' => 'loaded', 'run' => $message['run'] ?? null]);
                        break;
                    case 'start':
                        if ($loaded === null) {
                            $send(['type' => 'error', 'message' => 'No program is loaded.']);
                            break;
                        }
                        [$run, $loaded, $startedAt] = [$loaded, null, microtime(true)];
                        break;
                    case 'abort':
                        [$run, $loaded] = [null, null];
                        $send(['type' => 'aborted']);
                        break;
                    default:
                        $send(['type' => 'error', 'message' => 'The message was not understood.']);
                }
            } catch (\Throwable $e) {
                $send(['type' => 'error', 'message' => $e->getMessage()]);
            }
        }
    }
    if ($run !== null) {
        $until = (microtime(true) - $startedAt) * $pace;
        $rows = [];
        while ($run->valid() && $run->current()[0] <= $until && count($rows) < 200) {
            $rows[] = $run->current();
            $run->next();
        }
        if ($rows !== []) {
            $send(['type' => 'samples', 'rows' => $rows]);
        }
        if (! $run->valid()) {
            $send(['type' => 'done']);
            $run = null;
        }
    }
}
