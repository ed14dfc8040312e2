<?php

namespace App\Work\Contracts;

use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Work\Answer;
use App\Work\ProofSpec;
use App\Work\Queries\BenchWork;

/** Knows what satisfies a kind of proof. */
interface ProofJudge
{
    /**
     * What is still missing.
     *
     * @param  list<ProofSpec>  $proofs  all of its kinds at the bench
     * @return array<string, string> whole sentence by key of the proof; satisfied ones are not in it
     */
    public function open(BenchWork $work, array $proofs): array;

    /** @throws Refusal when the answer makes no sense; an answer that makes sense is kept, satisfying or not */
    public function take(BenchWork $work, ProofSpec $proof, Answer $answer, Person $by): void;

    /** What was proven counts no longer: the operation was undone. */
    public function undo(BenchWork $work, ProofSpec $proof): void;
}
