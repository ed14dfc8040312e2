<?php

namespace App\Work\Judges;

use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Work\Answer;
use App\Work\Models\Proof;
use App\Work\ProofSpec;
use App\Work\Queries\BenchWork;

/** Valves one by one: each must fall through its bore by its own weight, dry. */
final class FreeJudge extends KeepsProofs
{
    public const FALLS = 'falls';

    private const MOVES = [self::FALLS, 'tapped', 'hangs'];

    protected function missing(ProofSpec $proof): string
    {
        return "Say how each of the $proof->of moves in its bore, dry.";
    }

    protected function against(ProofSpec $proof, Proof $last): ?string
    {
        $stuck = self::stuck($last->answer['moves']);

        return $stuck === []
            ? null
            : implode(', ', $stuck).(count($stuck) === 1 ? ' does' : ' do').' not fall by its own weight: '
                .'polish, oversize or another body, then try again.';
    }

    public function take(BenchWork $work, ProofSpec $proof, Answer $answer, Person $by): void
    {
        $said = $answer->body['moves'] ?? [];
        $kept = [];
        foreach ($proof->body['each'] as $valve) {
            $how = is_array($said) ? $said[$valve] ?? null : null;
            if (! in_array($how, self::MOVES, true)) {
                throw Refusal::at("/answer/moves/$valve", "Say how the \"$valve\" moves in its bore.");
            }
            $kept[$valve] = $how;
        }
        $this->keep($work, $proof, $answer, $by, ['moves' => $kept], self::stuck($kept) === []);
    }

    /**
     * @param  array<string, string>  $moves
     * @return list<string>
     */
    private static function stuck(array $moves): array
    {
        return array_keys(array_filter($moves, fn (string $how): bool => $how !== self::FALLS));
    }
}
