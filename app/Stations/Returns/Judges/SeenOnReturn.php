<?php

namespace App\Stations\Returns\Judges;

use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Stations\Returns\Actions\ObserveReturn;
use App\Stations\Returns\Models\UnitReturn;
use App\Stations\Returns\Queries\VerdictRanking;
use App\Work\Answer;
use App\Work\Contracts\ObservationJudge;
use App\Work\Judges\KeepsProofs;
use App\Work\ProofSpec;
use App\Work\Queries\BenchWork;

/** What is seen of a returned unit goes where it is weighed; what cannot be said is an answer too, and weighs nothing. */
final class SeenOnReturn extends KeepsProofs implements ObservationJudge
{
    public const CANNOT_SAY = 'cannot be said';

    public function __construct(private readonly VerdictRanking $rank, private readonly ObserveReturn $observe)
    {
    }

    public function questions(): array
    {
        return array_map(
            fn (array $feature): array => [
                'ask' => (string) $feature['name'],
                'choices' => array_map(strval(...), [...array_values($feature['values']), self::CANNOT_SAY]),
            ],
            array_column($this->rank->model()['features'], null, 'id'),
        );
    }

    protected function missing(ProofSpec $proof): string
    {
        return 'Look, then say: '.($proof->body['ask'] ?? $proof->of).'.';
    }

    public function take(BenchWork $work, ProofSpec $proof, Answer $answer, Person $by): void
    {
        $choice = $answer->string('choice');
        if (! in_array($choice, $proof->body['choices'] ?? [], true)) {
            throw Refusal::at('/answer/choice', $this->missing($proof));
        }
        $this->observe->at(self::openReturn($work), $proof->of, $choice === self::CANNOT_SAY ? null : $choice);
        $this->keep($work, $proof, $answer, $by, ['choice' => $choice]);
    }

    public function undo(BenchWork $work, ProofSpec $proof): void
    {
        $work->last($proof) === null || $this->observe->at(self::openReturn($work), $proof->of, null);
        parent::undo($work, $proof);
    }

    private static function openReturn(BenchWork $work): UnitReturn
    {
        return UnitReturn::query()->where('unit_id', $work->unit->id)->orderByDesc('id')->firstOrFail();
    }
}
