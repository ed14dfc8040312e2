<?php

namespace App\Stations\Assembly\Judges;

use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Stations\Assembly\Actions\FitPack;
use App\Stations\Assembly\Queries\AssemblyRecords;
use App\Work\Answer;
use App\Work\Contracts\FitJudge;
use App\Work\ProofSpec;
use App\Work\Queries\BenchWork;

/** Selective parts that bring a pack or an end play into its window, off the shelf. */
final class ChosenParts implements FitJudge
{
    public function __construct(private readonly FitPack $fit, private readonly AssemblyRecords $records)
    {
    }

    public function open(BenchWork $work, array $proofs): array
    {
        $fits = $this->records->of($work)->fits;
        $frozen = $work->build()?->frozen() ?? [];
        $open = [];
        foreach ($proofs as $proof) {
            if (! isset($fits[$proof->place()])) {
                $names = array_column($proof->reading()->places($frozen), 'name', 'code');
                $open[$proof->key()] = '"'.($names[$proof->place()] ?? $proof->of).'": no parts chosen yet.';
            }
        }

        return $open;
    }

    public function take(BenchWork $work, ProofSpec $proof, Answer $answer, Person $by): void
    {
        $build = $work->build() ?? throw new Refusal('This unit has no released build yet.', 409);
        $this->fit->fit(
            $build,
            $proof->place(),
            $answer->string('reading'),
            $answer->string('trialWasher') ?: null,
            self::picks($answer),
            $by,
        );
    }

    public function undo(BenchWork $work, ProofSpec $proof): void
    {
        $build = $work->build();
        $build === null || $this->fit->undo($build, $proof->place());
    }

    /** @return list<array{slot: string, part: string, count: int}> */
    private static function picks(Answer $answer): array
    {
        $picks = $answer->body['picks'] ?? null;
        $wrong = Refusal::at('/answer/picks', 'Say which parts are taken: slot, part and count of each.');
        if (! is_array($picks) || $picks === [] || count($picks) > 40) {
            throw $wrong;
        }
        foreach ($picks as $pick) {
            if (
                ! is_array($pick) ||
                ! is_string($pick['slot'] ?? null) ||
                ! is_string($pick['part'] ?? null) ||
                ! is_int($pick['count'] ?? null)
            ) {
                throw $wrong;
            }
        }

        return array_values($picks);
    }
}
