<?php

namespace App\Work\Judges;

use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Work\Answer;
use App\Work\ProofSpec;
use App\Work\Queries\BenchWork;

/** Balls, rings, plates, bolts: as many as there should be, or a reason. */
final class CountJudge extends KeepsProofs
{
    private const MOST = 999;

    protected function missing(ProofSpec $proof): string
    {
        $all = [];
        foreach ($proof->body['counts'] as $what => $expected) {
            $all[] = "$expected $what";
        }

        return 'Count '.implode(', ', $all).'.';
    }

    public function take(BenchWork $work, ProofSpec $proof, Answer $answer, Person $by): void
    {
        $counts = $answer->body['counts'] ?? [];
        $kept = [];
        foreach ($proof->body['counts'] as $what => $expected) {
            $counted = is_array($counts) ? $counts[$what] ?? null : null;
            if (! is_int($counted) || $counted < 0 || $counted > self::MOST) {
                throw Refusal::at("/answer/counts/$what", "Count the $what first: there should be $expected.");
            }
            if ($counted !== $expected && trim($answer->note) === '') {
                throw Refusal::at(
                    "/answer/counts/$what",
                    "There should be $expected $what, and $counted were counted. Look again, or say in the note why.",
                );
            }
            $kept[$what] = $counted;
        }
        $this->keep($work, $proof, $answer, $by, ['counts' => $kept]);
    }
}
