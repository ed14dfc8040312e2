<?php

namespace App\Stations\Dyno\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Stations\Dyno\Models\Run;

final class CancelRun
{
    public function __construct(private readonly Ledger $ledger)
    {
    }

    public function cancel(Run $run): void
    {
        match ($run->state) {
            'queued' => $run->update(['state' => 'cancelled', 'ended_at' => now(), 'cancel_requested' => true]),
            'running' => $run->update(['cancel_requested' => true]),
            default => throw new Refusal('This run is already over.', 409),
        };
        $this->ledger->onUnit($run->build->unit()->firstOrFail(), 'run.cancelled', ['run' => $run->id]);
    }
}
