<?php

namespace App\Work\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Work\Answer;
use App\Work\Bench;
use App\Work\Move;
use App\Work\OperationSpec;
use App\Work\OperationState;
use App\Work\Queries\BenchWork;
use App\Yard\Models\Unit;

/** Whatever happens to an operation beside its proofs: begun, left for a while, set aside because it jams, undone. */
final class MoveOperation
{
    public function __construct(private readonly Ledger $ledger, private readonly WorkOnUnit $door)
    {
    }

    public function move(Unit $unit, Bench $bench, string $code, Move $move, Answer $answer, Person $by): void
    {
        $work = $this->door->at($unit, $bench);
        $operation = WorkOnUnit::operation($work, $code);
        $this->assertMay($work, $operation, $move);
        if ($move->needsReason() && $answer->note === '') {
            throw Refusal::at('/note', $move->asksWhy());
        }
        $reopened = $move === Move::Undo ? $this->undo($work, $operation, $answer, $by) : [];
        if ($move !== Move::Undo) {
            $this->write($work, $operation, $move, $answer, $by);
        }
        $this->ledger->onUnit($unit, "$bench->value.$move->value", array_filter([
            'operation' => $code,
            'why' => $answer->note,
            'generation' => $work->generation,
            'reopened' => $reopened,
        ]));
    }

    private function assertMay(BenchWork $work, OperationSpec $operation, Move $move): void
    {
        $state = ($work->rows[$operation->code] ?? null)?->state;
        $state = $work->isDone($operation->code) ? OperationState::Done : ($state ?? OperationState::Open);
        if (! in_array($state, $move->possibleIn(), true)) {
            throw new Refusal($move->refused($operation->name, $state), 409);
        }
        $move === Move::Start && WorkOnUnit::assertDue($work, $operation);
    }

    private function write(BenchWork $work, OperationSpec $operation, Move $move, Answer $answer, Person $by): void
    {
        $row = $work->row($operation->code);
        $row->fill([
            'worked_s' => $row->worked($answer->at),
            'running_since' => $move === Move::Start ? $answer->at : null,
            'state' => $move->leadsTo($row->state),
            'reason' => $move === Move::Jam ? $answer->note : '',
            'note' => $move === Move::Note || $move === Move::Pause ? $answer->note : $row->note,
            'done_by' => $by->id,
            'done_at' => $answer->at,
            'tablet_at' => $answer->tablet,
        ])->save();
    }

    /** @return list<string> what else is open again, because it was done on top of this */
    private function undo(BenchWork $work, OperationSpec $operation, Answer $answer, Person $by): array
    {
        $plan = $work->plan();
        $fallen = $plan->graph->ids($plan->reopened([$plan->graph->place($operation->code, '/operation')]));
        foreach ([$operation->code, ...$fallen] as $code) {
            foreach ($work->operations[$code]->proofs as $proof) {
                app($proof->kind->judge())->undo($work, $proof);
            }
            $work->rows[$code]?->update([
                'state' => OperationState::Open,
                'reason' => $code === $operation->code
                        ? "Undone: $answer->note"
                        : "Open again, because \"$operation->name\" was undone.",
                'running_since' => null,
                'done_by' => $by->id,
                'done_at' => $answer->at,
                'tablet_at' => $answer->tablet,
            ]);
        }

        return $fallen;
    }
}
