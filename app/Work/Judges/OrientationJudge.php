<?php

namespace App\Work\Judges;

use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Work\Answer;
use App\Work\Models\Proof;
use App\Work\ProofSpec;
use App\Work\Queries\BenchWork;

/** How a part lies, chosen among statements of which one is right. */
final class OrientationJudge extends KeepsProofs
{
    protected function missing(ProofSpec $proof): string
    {
        return "Say how it lies: {$proof->body['ask']}";
    }

    protected function against(ProofSpec $proof, Proof $last): ?string
    {
        $turn = "is not how it belongs. Turn it, then say again: {$proof->body['ask']}";

        return $last->satisfied ? null : "\"{$last->answer['choice']}\" ".($proof->body['otherwise'] ?? $turn);
    }

    public function take(BenchWork $work, ProofSpec $proof, Answer $answer, Person $by): void
    {
        $choice = $answer->string('choice');
        if (! in_array($choice, $proof->body['choices'], true)) {
            throw Refusal::at('/answer/choice', $this->missing($proof));
        }
        $this->keep($work, $proof, $answer, $by, ['choice' => $choice], $choice === $proof->body['right']);
    }
}
