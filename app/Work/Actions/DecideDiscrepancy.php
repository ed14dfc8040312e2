<?php

namespace App\Work\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Work\Bench;
use App\Work\Decision;
use App\Work\Models\Discrepancy;
use App\Work\Queries\CountsThatDiffer;
use App\Yard\Models\Unit;

/** Somebody says what became of a count that differs. */
final class DecideDiscrepancy
{
    public function __construct(private readonly Ledger $ledger, private readonly WorkOnUnit $door)
    {
    }

    public function decide(Unit $unit, Bench $bench, int $id, Decision $decision, string $note, Person $by): void
    {
        $this->door->at($unit, $bench);
        $found =
            CountsThatDiffer::at($unit, $bench)->first(fn (Discrepancy $d): bool => $d->id === $id) ??
            throw new Refusal('There is no such difference on this unit.', 404);
        if ($found->decision !== null) {
            throw new Refusal("It is decided already: {$found->decision->says()}.", 409);
        }
        if ($decision->needsNote() && $note === '') {
            throw Refusal::at('/note', 'Say how that is known: somebody will be told.');
        }
        $found->update([
            'decision' => $decision,
            'decision_note' => $note,
            'decided_by' => $by->id,
            'decided_at' => now(),
        ]);
        $this->ledger->onUnit($unit, "$bench->value.discrepancy", [
            'operation' => $found->operation,
            'what' => $found->said(),
            'decision' => $decision->value,
            'note' => $note,
        ]);
    }
}
