#!/usr/bin/env php
<?php
declare(strict_types=1);

use Yard\Rig\Built;
use Yard\Rig\Faults;

// The rig's own console: its emergency stop, and what ails the unit that stands on it. The application neither sees nor
// sets any of it.
//   console.php --state DIR stop | release | faults | list | set SERIAL FAULT[:WHERE[:SEVERITY]] [SEED] | clear SERIAL

require __DIR__.'/classes.php';

$words = array_slice($argv, 1);
$state = '';
if (($words[0] ?? '') === '--state') {
    $state = (string) ($words[1] ?? '');
    $words = array_slice($words, 2);
}
$state = $state === '' ? sys_get_temp_dir().'/rig' : $state;
$faults = Faults::in($state);
try {
    switch ($words[0] ?? '') {
        case 'stop':
            touch("$state/emergency") || throw new InvalidArgumentException("\"$state\" is the folder of no rig.");
            echo "Stopped. Nothing turns until: release.\n";
            break;
        case 'release':
            @unlink("$state/emergency");
            echo "Released.\n";
            break;
        case 'faults':
            foreach (Built::FAULTS as $fault => $where) {
                echo $fault, $where === '' ? '' : ":$where", "\n";
            }
            break;
        case 'list':
            echo implode("\n", $faults->told() ?: ['No unit has a fault.']), "\n";
            break;
        case 'set':
            [$fault, $where, $severity] = array_pad(explode(':', (string) ($words[2] ?? '')), 3, '');
            isset($words[1]) || throw new InvalidArgumentException('Name the unit by its serial number.');
            $severity === '' || is_numeric($severity)
                || throw new InvalidArgumentException("\"$severity\" is no severity.");
            $faults->set(
                $words[1],
                ['fault' => $fault, 'where' => $where, 'severity' => $severity === '' ? 1.0 : (float) $severity],
                isset($words[3]) ? (int) $words[3] : null,
            );
            echo implode("\n", $faults->told()), "\n";
            break;
        case 'clear':
            $faults->clear((string) ($words[1] ?? throw new InvalidArgumentException('Name the unit.')));
            break;
        default:
            throw new InvalidArgumentException(
                'Say stop, release, faults, list, set SERIAL FAULT[:WHERE[:SEVERITY]] [SEED], or clear SERIAL.',
            );
    }
} catch (InvalidArgumentException $e) {
    fwrite(STDERR, $e->getMessage()."\n");
    exit(2);
}
