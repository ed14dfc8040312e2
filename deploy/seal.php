<?php

// Seals what the web workers anchor. Runs as its own user; loads nothing that they could have written.
// Use: php deploy/seal.php STATE-FOLDER [once]
require __DIR__.'/../app/Kernel/Ledger/Anchors.php';
require __DIR__.'/../app/Kernel/Ledger/Seal.php';

use App\Kernel\Ledger\Seal;

$state = $argv[1] ?? exit("Use: php deploy/seal.php STATE-FOLDER [once]\n");
$inbox = "$state/app/anchors/heads.jsonl";
$seal = new Seal($inbox, "$state/sealed", Seal::keyOf("$state/sealed"));
do {
    $taken = $seal->take();
    $taken > 0 || usleep(200_000);
} while (($argv[2] ?? '') !== 'once' || $taken > 0);
