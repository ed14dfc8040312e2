<?php

namespace App\Kernel\Ledger;

use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;

final class TrimAnchorsCommand extends Command
{
    protected $signature = 'ledger:trim-anchors';

    protected $description = 'After a restore: leave out the anchors that are newer than the backup';

    public function handle(): int
    {
        ['left' => $left, 'renewed' => $renewed] = Anchors::trim(
            DB::table('ledger_streams')->select(['stream', 'seq', 'hash'])->cursor(),
        );
        $this->line("$left anchors newer than the backup were left out; $renewed chains were anchored anew.");

        return 0;
    }
}
