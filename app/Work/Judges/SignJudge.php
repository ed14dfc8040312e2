<?php

namespace App\Work\Judges;

use App\Kernel\Refusal;
use App\Shop\Door\Caller;
use App\Shop\Door\SignIn;
use App\Shop\Models\Person;
use App\Work\Answer;
use App\Work\ProofSpec;
use App\Work\Queries\BenchWork;

/** A second person looks at it and says so with badge and PIN. */
final class SignJudge extends KeepsProofs
{
    public function __construct(private readonly SignIn $door)
    {
    }

    protected function missing(ProofSpec $proof): string
    {
        return "A second person signs: $proof->of.";
    }

    public function take(BenchWork $work, ProofSpec $proof, Answer $answer, Person $by): void
    {
        $second = $this->door->check($answer->string('badge'), $answer->string('pin'), Caller::of(request()));
        if ($second->id === $by->id) {
            throw Refusal::at('/answer/badge', 'This must be somebody else than the person who did the work.');
        }
        $this->keep($work, $proof, $answer, $second, ['for' => $by->id]);
    }
}
