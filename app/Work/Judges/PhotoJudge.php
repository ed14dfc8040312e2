<?php

namespace App\Work\Judges;

use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Work\Answer;
use App\Work\ProofSpec;
use App\Work\Queries\BenchWork;
use App\Yard\Models\Photo;

/** A picture of this unit. */
final class PhotoJudge extends KeepsProofs
{
    protected function missing(ProofSpec $proof): string
    {
        return "Take a picture: $proof->of.";
    }

    public function take(BenchWork $work, ProofSpec $proof, Answer $answer, Person $by): void
    {
        $photo = Photo::query()->where('unit_id', $work->unit->id)->find((int) $answer->string('photo'));
        if ($photo === null) {
            throw Refusal::at('/answer/photo', "There is no such picture of this unit. {$this->missing($proof)}");
        }
        $this->keep($work, $proof, $answer, $by, ['photo' => $photo->id, 'sha256' => $photo->sha256]);
    }
}
