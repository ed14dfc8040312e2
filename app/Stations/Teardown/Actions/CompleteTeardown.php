<?php

namespace App\Stations\Teardown\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Stations\Teardown\Models\Finding;
use App\Work\Actions\MarkStep;
use App\Work\Generation;
use App\Work\Models\StepMark;
use App\Yard\Gatekeeper;
use App\Yard\Models\Unit;

/** Teardown is over when every step is done and at least the cause, or its absence, is written down. */
final class CompleteTeardown
{
    public function __construct(private readonly Ledger $ledger)
    {
    }

    public function complete(Unit $unit, bool $noCauseFound, Person $by): void
    {
        Gatekeeper::at($unit, 'teardown');
        Gatekeeper::noHold($unit);
        $generation = Generation::of($unit, 'teardown');
        $done = StepMark::query()
            ->where('unit_id', $unit->id)
            ->where('generation', $generation)
            ->where('phase', 'teardown')
            ->pluck('step')
            ->all();
        $open = array_diff_key(MarkStep::steps($unit, 'teardown'), array_flip($done));
        if ($open !== []) {
            throw new Refusal('Still to do: '.implode('; ', array_column($open, 'name')).'.', 409);
        }
        $findings = Finding::query()->where('unit_id', $unit->id)->where('generation', $generation)->get();
        if ($findings->isEmpty()) {
            throw new Refusal('No part has been inspected yet.', 409);
        }
        if (! $noCauseFound && $findings->where('role', 'cause')->isEmpty()) {
            throw new Refusal(
                'No finding is marked as the cause. Mark it, or say that no cause was found: that is an honest result '
                    .'too.',
                409,
            );
        }
        $unit->currentBuild?->update(['teardown_done_at' => now()]);
        $this->ledger->onUnit($unit, 'teardown.completed', [
            'noCauseFound' => $noCauseFound,
            'causes' => $findings->where('role', 'cause')->pluck('part')->values()->all(),
        ]);
        $unit->moveTo(Gatekeeper::next($unit, 'teardown'));
    }
}
