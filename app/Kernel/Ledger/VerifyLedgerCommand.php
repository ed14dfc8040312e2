<?php

namespace App\Kernel\Ledger;

use Illuminate\Console\Command;

final class VerifyLedgerCommand extends Command
{
    protected $signature = 'ledger:verify
        {--state : also hold every row and file against what the events say}
        {--resume : go on where a walk that was broken off had come to}';

    protected $description = 'Prove that no event of the ledger was altered or removed';

    public function handle(VerifyLedger $ledger, VerifyState $state): int
    {
        $breaks = $this->chains($ledger);
        $found = $this->option('state') ? $this->state($state) : 0;

        return $breaks + $found === 0 ? 0 : 1;
    }

    private function chains(VerifyLedger $ledger): int
    {
        $kept = config('yard.state').'/framework/verify.json';
        $from = $this->option('resume') ? Checkpoint::read($kept) : null;
        $from === null || $this->line("Going on after $from->events events.");
        $result = $ledger->verify(function (Checkpoint $at) use ($kept): void {
            file_put_contents($kept, json_encode($at, JSON_THROW_ON_ERROR));
            $at->events % 50_000 === 0 && $at->events > 0 && $this->line("$at->events events read");
        }, $from);
        @unlink($kept);
        foreach ($result['breaks'] as $break) {
            $this->error("{$break['stream']}, event {$break['seq']}: {$break['what']}");
        }
        $count = count($result['breaks']);
        $count === 0
            ? $this->info("The chains hold: {$result['events']} events in {$result['streams']} chains.")
            : $this->error("$count break(s) in {$result['streams']} chains.");
        if (! VerifyLedger::holdsKey()) {
            $this->line('The signatures of the sealed anchors were not checked: that takes the user of the seal.');
        }

        return $count;
    }

    private function state(VerifyState $state): int
    {
        $result = $state->verify(fn (string $told) => $this->line($told));
        foreach ($result['differences'] as $d) {
            $this->error(($d['unit'] === null ? '' : "unit {$d['unit']}, ")."{$d['where']}: {$d['what']}");
        }
        $result['found'] === 0
            ? $this->info("The state is what the events say: {$result['rows']} rows.")
            : $this->error("{$result['found']} difference(s) in {$result['rows']} rows.");

        return $result['found'];
    }
}
