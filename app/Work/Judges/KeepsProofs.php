<?php

namespace App\Work\Judges;

use App\Shop\Models\Person;
use App\Work\Answer;
use App\Work\Contracts\ProofJudge;
use App\Work\Models\Proof;
use App\Work\ProofSpec;
use App\Work\Queries\BenchWork;

/** A kind of proof that is kept as it was answered. */
abstract class KeepsProofs implements ProofJudge
{
    /** What is missing while nothing was answered. */
    abstract protected function missing(ProofSpec $proof): string;

    /** What is still wrong with the last answer; null: nothing. */
    protected function against(ProofSpec $proof, Proof $last): ?string
    {
        return $last->satisfied ? null : $this->missing($proof);
    }

    public function open(BenchWork $work, array $proofs): array
    {
        $open = [];
        foreach ($proofs as $proof) {
            $last = $work->last($proof);
            $open[$proof->key()] = $last === null ? $this->missing($proof) : $this->against($proof, $last);
        }

        return array_filter($open, is_string(...));
    }

    public function undo(BenchWork $work, ProofSpec $proof): void
    {
        $work->last($proof)?->update(['undone_at' => now()]);
    }

    /** @param  array<string, mixed>  $kept */
    protected function keep(
        BenchWork $work,
        ProofSpec $proof,
        Answer $answer,
        Person $by,
        array $kept,
        bool $satisfied = true,
    ): void {
        $this->undo($work, $proof);
        Proof::create([
            'unit_id' => $work->unit->id,
            'generation' => $work->generation,
            'bench' => $work->bench->value,
            'operation' => $proof->operation,
            'proof' => $proof->code,
            'kind' => $proof->kind->value,
            'answer' => $kept,
            'satisfied' => $satisfied,
            'note' => $answer->note,
            'taken_by' => $by->id,
            'taken_at' => $answer->at,
            'tablet_at' => $answer->tablet,
        ]);
    }
}
