<?php

namespace App\Work\Judges;

use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Work\Answer;
use App\Work\Bench;
use App\Work\Models\Discrepancy;
use App\Work\ProofSpec;
use App\Work\Queries\BenchWork;
use App\Work\Queries\CountsThatDiffer;

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
        if ($work->bench === Bench::Teardown) {
            $this->differ($work, $proof, $kept, $answer, $by);
        }
    }

    public function undo(BenchWork $work, ProofSpec $proof): void
    {
        parent::undo($work, $proof);
        if ($work->bench !== Bench::Teardown || $work->last($proof) === null) {
            return; // nothing was counted that could differ
        }
        foreach (CountsThatDiffer::at($work->unit, $work->bench) as $before) {
            $before->operation === $proof->operation && $before->proof === $proof->code &&
                $before->update(['undone_at' => now()]);
        }
    }

    /**
     * What is not as many as it should be stands open until somebody says what became of it.
     *
     * @param  array<string, int>  $counted
     */
    private function differ(BenchWork $work, ProofSpec $proof, array $counted, Answer $answer, Person $by): void
    {
        foreach (array_diff_assoc($counted, $proof->body['counts']) as $what => $count) {
            Discrepancy::create([
                'unit_id' => $work->unit->id,
                'generation' => $work->generation,
                'bench' => $work->bench->value,
                'operation' => $proof->operation,
                'proof' => $proof->code,
                'what' => $what,
                'expected' => $proof->body['counts'][$what],
                'counted' => $count,
                'note' => $answer->note,
                'counted_by' => $by->id,
                'counted_at' => $answer->at,
            ]);
        }
    }
}
