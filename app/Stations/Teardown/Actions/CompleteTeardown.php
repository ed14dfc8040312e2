<?php

namespace App\Stations\Teardown\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Stations\Teardown\Models\Finding;
use App\Work\Generation;
use App\Yard\Gate;
use App\Yard\Gatekeeper;
use App\Yard\Models\Unit;
use App\Yard\StationName;

/** Teardown is over when every step is done and at least the cause, or its absence, is written down. */
final class CompleteTeardown
{
    public function __construct(
        private readonly Ledger $ledger,
        private readonly Gatekeeper $gate,
        private readonly ReclaimParts $parts,
    ) {
    }

    public function complete(Unit $unit, bool $noCauseFound, Person $by): void
    {
        Gatekeeper::at($unit, StationName::Teardown);
        $this->gate->pass($unit, Gate::CloseTeardown);
        $findings = Finding::query()
            ->where('unit_id', $unit->id)
            ->where('generation', Generation::of($unit, 'teardown'))
            ->get();
        if (! $noCauseFound && $findings->where('role', 'cause')->isEmpty()) {
            throw new Refusal(
                'No finding is marked as the cause. Mark it, or say that no cause was found: that is an honest result '
                    .'too.',
                409,
            );
        }
        $this->parts->reclaim($unit, $findings);
        $unit->currentBuild?->update(['teardown_done_at' => now()]);
        $this->ledger->onUnit($unit, 'teardown.completed', [
            'noCauseFound' => $noCauseFound,
            'causes' => $findings->where('role', 'cause')->pluck('part')->values()->all(),
        ]);
        $unit->moveTo(Gatekeeper::next($unit, StationName::Teardown));
    }
}
