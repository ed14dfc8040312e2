<?php

namespace App\Bench;

use App\Catalog\Spec;
use App\Ledger\Ledger;
use App\Receiving\DamageEvidence;
use App\Shop\Person;
use App\Shop\Refused;
use App\Track\Gatekeeper;
use App\Track\Unit;

/** A guided step is done: what comes before it is done too, and what was counted is written down. */
final class MarkStep
{
    public function __construct(private readonly Ledger $ledger, private readonly DamageEvidence $evidence)
    {
    }

    /** @param  array<string, int>  $counts */
    public function mark(Unit $unit, string $phase, string $code, array $counts, string $note, Person $by): void
    {
        $phase === 'teardown' ? Gatekeeper::at($unit, 'teardown', 'returns') : Gatekeeper::at($unit, 'bench');
        Gatekeeper::noHold($unit);
        $generation = Generation::of($unit, $phase);
        $phase === 'teardown' && $generation === 1 && $this->evidence->assertKept($unit);
        $steps = self::steps($unit, $phase);
        $step = $steps[$code] ?? throw new Refused("There is no step \"$code\" in this $phase.", 404);
        $done = StepMark::query()->where('unit_id', $unit->id)->where('generation', $generation)->where('phase', $phase)->pluck('step')->all();
        foreach ($step['needs'] as $need) {
            if (! in_array($need, $done, true)) {
                throw new Refused("\"{$step['name']}\" comes after \"{$steps[$need]['name']}\", which is not done yet.", 409);
            }
        }
        foreach ($step['counts'] ?? [] as $what => $expected) {
            $counted = $counts[$what] ?? throw Refused::at("/counts/$what", "Count the $what first: there should be $expected.");
            if ($counted !== $expected && trim($note) === '') {
                throw Refused::at("/counts/$what", "There should be $expected $what, and $counted were counted. Look again, or say in the note why.");
            }
        }
        StepMark::query()->updateOrCreate(['unit_id' => $unit->id, 'generation' => $generation, 'phase' => $phase, 'step' => $code], ['counts' => (object) $counts, 'note' => $note, 'done_by' => $by->id, 'done_at' => now()]);
        $this->ledger->onUnit($unit, "$phase.step", ['step' => $code, 'counts' => (object) $counts, 'note' => $note, 'generation' => $generation]);
    }

    /** @return array<string, array<string, mixed>> the steps by code; assembly uses the frozen ones */
    public static function steps(Unit $unit, string $phase): array
    {
        if ($phase === 'assembly') {
            return array_column($unit->currentBuild?->spec['assembly'] ?? [], null, 'code');
        }

        return Spec::query()->where('family_id', $unit->family_id)->where('kind', 'teardown-step')->orderBy('position')->get()
            ->mapWithKeys(fn (Spec $s) => [$s->code => ['code' => $s->code, 'name' => $s->name] + $s->body])->all();
    }
}
