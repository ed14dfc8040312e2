<?php

namespace App\Work\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Work\Answer;
use App\Work\Bench;
use App\Work\Models\WorkedOperation;
use App\Work\OperationSpec;
use App\Work\OperationState;
use App\Work\ProofKind;
use App\Work\ProofSpec;
use App\Work\Queries\BenchWork;
use App\Yard\Models\Unit;

/** A proof of any kind: judged by its own judge; the operation is done with the last one. */
final class TakeProof
{
    public function __construct(private readonly Ledger $ledger, private readonly WorkOnUnit $door)
    {
    }

    public function take(Unit $unit, Bench $bench, string $code, string $proof, Answer $answer, Person $by): void
    {
        $work = $this->door->at($unit, $bench);
        $operation = WorkOnUnit::operation($work, $code);
        $spec = $operation->proof($proof) ??
            throw new Refusal("\"$operation->name\" has no proof \"$proof\".", 404);
        WorkOnUnit::assertDue($work, $operation);
        $this->assertNotDone($work, $operation, $spec);
        app($spec->kind->judge())->take($work, $spec, $answer, $by);
        $this->ledger->onUnit($unit, "$bench->value.proof", [
            'operation' => $code,
            'proof' => $proof,
            'generation' => $work->generation,
        ]);
        $row = $this->row($work, $operation, $answer, $by);
        $asksSkill = in_array(ProofKind::Skilled, array_column($operation->proofs, 'kind'), true);
        $asksSkill && $row->save(); // who did it may be all that is asked
        $missing = array_keys($work->again()->openNow($code));
        $says = array_map(
            fn (ProofSpec $p) => $p->code,
            array_filter($operation->proofs, fn (ProofSpec $p) => $p->kind === ProofKind::Done),
        );
        $done = $spec->kind === ProofKind::Done || ($says === [] && $missing === []);
        $done ? $this->finish($row, $operation, $work, $answer, $by) : $row->save();
    }

    /** What a person only says is said once; what is measured may be measured again. */
    private function assertNotDone(BenchWork $work, OperationSpec $operation, ProofSpec $spec): void
    {
        $row = $work->rows[$operation->code] ?? null;
        if ($row === null || ! $work->isDone($operation->code) || $spec->kind->mayLapse()) {
            return;
        }
        if ($spec->kind === ProofKind::Condition) {
            return;
        }
        $who = Person::query()->whereKey($row->done_by)->value('name');
        throw new Refusal(
            "\"$operation->name\" is done: $who, {$row->done_at->format('j M, H:i')}. Undo it first if it was not so.",
            409,
        );
    }

    private function row(BenchWork $work, OperationSpec $operation, Answer $answer, Person $by): WorkedOperation
    {
        $row = $work->row($operation->code);
        if ($row->state === OperationState::Open || $row->state === OperationState::Paused) {
            $row->state = OperationState::Running;
            $row->running_since = $answer->at;
        }
        $row->fill(['done_by' => $by->id, 'done_at' => $answer->at, 'tablet_at' => $answer->tablet]);
        $answer->note === '' || $row->note = $answer->note;

        return $row;
    }

    private function finish(
        WorkedOperation $row,
        OperationSpec $operation,
        BenchWork $work,
        Answer $answer,
        Person $by,
    ): void {
        $row->fill([
            'state' => OperationState::Done,
            'worked_s' => $row->worked($answer->at),
            'running_since' => null,
            'reason' => '',
        ])->save();
        $this->ledger->onUnit($work->unit, "{$work->bench->value}.step", [
            'step' => $operation->code,
            'note' => $answer->note,
            'generation' => $work->generation,
            'worked_s' => $row->worked_s,
        ]);
    }
}
