<?php

namespace App\Work\Judges;

use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Work\Answer;
use App\Work\Contracts\ProofJudge;
use App\Work\ProofSpec;
use App\Work\Queries\BenchWork;

/** A person says that it is done; everything else that the operation proves comes before it. */
final class DoneJudge implements ProofJudge
{
    public function open(BenchWork $work, array $proofs): array
    {
        $open = [];
        foreach ($proofs as $proof) {
            $open[$proof->key()] = 'Nobody has said yet that it is done.';
        }

        return $open;
    }

    public function take(BenchWork $work, ProofSpec $proof, Answer $answer, Person $by): void
    {
        $missing = array_diff_key($work->openOf($proof->operation), [$proof->code => '']);
        if ($missing !== []) {
            throw new Refusal(implode(' ', $missing), 409);
        }
    }

    public function undo(BenchWork $work, ProofSpec $proof): void
    {
    }
}
