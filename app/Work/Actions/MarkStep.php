<?php

namespace App\Work\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Work\Generation;
use App\Work\Models\StepMark;
use App\Work\Queries\StepList;
use App\Yard\Gate;
use App\Yard\Gatekeeper;
use App\Yard\Models\Unit;
use App\Yard\StationName;

/** A guided step is done: what comes before it is done too, and what was counted is written down. */
final class MarkStep
{
    public function __construct(private readonly Ledger $ledger, private readonly Gatekeeper $gate)
    {
    }

    /** @param  array<string, int>  $counts */
    public function mark(Unit $unit, string $phase, string $code, array $counts, string $note, Person $by): void
    {
        $phase === 'teardown'
            ? Gatekeeper::at($unit, StationName::Teardown, StationName::Returns)
            : Gatekeeper::at($unit, StationName::Assembly);
        Gatekeeper::noHold($unit);
        $generation = Generation::of($unit, $phase);
        $phase === 'teardown' && $generation === 1 && $this->gate->pass($unit, Gate::FirstTool);
        $steps = StepList::steps($unit, $phase);
        $step = $steps[$code] ?? throw new Refusal("There is no step \"$code\" in this $phase.", 404);
        $done = StepMark::query()
            ->where('unit_id', $unit->id)
            ->where('generation', $generation)
            ->where('phase', $phase)
            ->pluck('step')
            ->all();
        foreach ($step['needs'] as $need) {
            if (! in_array($need, $done, true)) {
                throw new Refusal(
                    "\"{$step['name']}\" comes after \"{$steps[$need]['name']}\", which is not done yet.",
                    409,
                );
            }
        }
        foreach ($step['counts'] ?? [] as $what => $expected) {
            $counted =
                $counts[$what] ??
                throw Refusal::at("/counts/$what", "Count the $what first: there should be $expected.");
            if ($counted !== $expected && trim($note) === '') {
                throw Refusal::at(
                    "/counts/$what",
                    "There should be $expected $what, and $counted were counted. Look again, or say in the note why.",
                );
            }
        }
        StepMark::query()->updateOrCreate(
            ['unit_id' => $unit->id, 'generation' => $generation, 'phase' => $phase, 'step' => $code],
            ['counts' => (object) $counts, 'note' => $note, 'done_by' => $by->id, 'done_at' => now()],
        );
        $this->ledger->onUnit($unit, "$phase.step", [
            'step' => $code,
            'counts' => (object) $counts,
            'note' => $note,
            'generation' => $generation,
        ]);
    }
}
