<?php

namespace App\Kernel\Ledger;

use Illuminate\Console\Command;

final class VerifyLedgerCommand extends Command
{
    protected $signature = 'ledger:verify';

    protected $description = 'Prove that no event of the ledger was altered or removed';

    public function handle(VerifyLedger $ledger): int
    {
        $result = $ledger->verify(fn (int $n) => $n % 50000 === 0 && $n > 0 ? $this->line("$n events read") : null);
        if ($result['breaks'] === []) {
            $this->info("The chains hold: {$result['events']} events in {$result['streams']} chains.");

            return 0;
        }
        foreach ($result['breaks'] as $break) {
            $this->error("{$break['stream']}, event {$break['seq']}: {$break['what']}");
        }
        $this->error(count($result['breaks']).' break(s) in '.$result['streams'].' chains.');

        return 1;
    }
}
