#!/usr/bin/env php
<?php
declare(strict_types=1);

use Yard\Rig\Cell;
use Yard\Rig\Once;
use Yard\Rig\Rig;

// The simulated test rig: a process of its own that knows nothing of the application but the wire format and the
// specimen file in docs/formats/rig.md. `--once FILE` writes a whole run as CSV to standard output instead.

require __DIR__.'/classes.php';

$options = getopt('', ['port:', 'pace:', 'state:', 'specimens:', 'once:']);

if (isset($options['once'])) {
    $asked = json_decode((string) file_get_contents($options['once']), true);
    echo implode(',', ['t_s', ...Rig::CHANNELS]), "\n";
    $run = Once::run(
        $asked['specimen'],
        $asked['faults'] ?? [],
        $asked['orders'],
        (float) $asked['end_s'],
        (int) ($asked['seed'] ?? 1),
    );
    foreach ($run as $row) {
        echo implode(',', $row), "\n";
    }
    exit(0);
}

/** What stands in a line without its end, bytes. */
const LONGEST_LINE = 100_000;
const HEARTBEAT_S = 0.5;

$state = (string) ($options['state'] ?? sys_get_temp_dir().'/rig');
@mkdir($state, 0775, true);
$cell = new Cell(
    $state,
    (string) ($options['specimens'] ?? "$state/specimens"),
    (float) ($options['pace'] ?? getenv('YARD_RIG_PACE') ?: 6.0),
);
$server = @stream_socket_server('tcp://127.0.0.1:'.(int) ($options['port'] ?? 8081), $code, $why);
if ($server === false) {
    fwrite(STDERR, "The rig cannot listen: $why.\n");
    exit(1);
}
$client = null;
$in = $out = '';
$beat = 0.0;
$hangUp = static function () use (&$client, &$in, &$out, $cell): void {
    $client !== null && fclose($client);
    [$client, $in, $out] = [null, '', ''];
    $cell->alone();
};
while (true) {
    $read = $client === null ? [$server] : [$client, $server];
    $write = $client !== null && $out !== '' ? [$client] : null;
    $except = null;
    if (@stream_select($read, $write, $except, 0, $cell->runs() ? 10_000 : 100_000) === false) {
        continue;
    }
    if (in_array($server, $read, true)) {
        $incoming = @stream_socket_accept($server, 0);
        if ($incoming !== false) {
            // Whoever comes last is listened to: the end that was there before may be dead without having said so.
            $client === null || $hangUp();
            $client = $incoming;
            stream_set_blocking($client, false);
            $out .= json_encode($cell->hello())."\n";
        }
    }
    if ($client !== null && in_array($client, $read, true)) {
        $chunk = fread($client, 65_536);
        if ($chunk === '' || $chunk === false) {
            feof($client) && $hangUp();
        } else {
            $in .= $chunk;
        }
        while (($end = strpos($in, "\n")) !== false) {
            $message = json_decode(substr($in, 0, $end), true);
            $in = substr($in, $end + 1);
            foreach ($cell->hear(is_array($message) ? $message : []) as $answer) {
                $out .= json_encode($answer)."\n";
            }
        }
        strlen($in) > LONGEST_LINE && $hangUp();
    }
    clearstatcache(true, "$state/emergency");
    $cell->emergency(is_file("$state/emergency"));
    // What the other end does not take stays in the journal.
    foreach ($client === null || strlen($out) < 2_000_000 ? $cell->tick() : [] as $message) {
        $out .= json_encode($message)."\n";
    }
    if ($client !== null && microtime(true) - $beat > HEARTBEAT_S) {
        $beat = microtime(true);
        $out .= json_encode(['type' => 'heartbeat'])."\n";
    }
    if ($client !== null && $out !== '') {
        $gone = @fwrite($client, $out);
        $gone === false ? $hangUp() : ($out = substr($out, $gone));
    }
}
