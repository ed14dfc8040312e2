<?php

namespace App\Stations\Identification\Actions;

use App\Kernel\Refusal;
use App\Shop\HouseRules;
use App\Shop\Models\Person;
use App\Stations\Identification\Models\Identification;
use App\Stations\Identification\Models\TrainerRound;
use App\Stations\Identification\Queries\FieldLearning;
use App\Stations\Identification\Queries\VariantModel;
use Yard\Core\Evidence\RankedHypothesis;

/**
 * Deals a past, confirmed core clue by clue. A question scores its information for effort as a share of the best
 * question's at that moment; the answer is right or wrong against what the core was confirmed as.
 */
final class Trainer
{
    public function __construct(private readonly FieldLearning $learning, private readonly HouseRules $rules)
    {
    }

    public function deal(Person $trainee, ?string $familyCode): TrainerRound
    {
        $open = TrainerRound::query()->where('person_id', $trainee->id)->whereNull('ended_at')->first();
        if ($open !== null) {
            return $open; // a round begun is finished first, also after a reload
        }
        $case = Identification::query()
            ->join('variants', 'variants.id', '=', 'identifications.variant_id')
            ->join('families', 'families.id', '=', 'variants.family_id')
            ->where('outcome', 'confirmed')
            ->whereRaw('JSON_LENGTH(answers) >= ?', [(int) $this->rules->number('trainer-fewest-clues')])
            ->when($familyCode !== null, fn ($q) => $q->where('families.code', $familyCode))
            ->whereNotIn(
                'identifications.id',
                TrainerRound::query()
                    ->where('person_id', $trainee->id)
                    ->latest('id')
                    ->limit(5)
                    ->pluck('identification_id'),
            )
            ->inRandomOrder()
            ->first(['identifications.id', 'variants.family_id']);
        if ($case === null) {
            throw new Refusal(
                'There is no confirmed core with at least '.
                    $this->rules->number('trainer-fewest-clues').
                    ' clues to deal'.
                    ($familyCode === null ? '' : ' in this family').
                    ' yet.',
                409,
            );
        }

        return TrainerRound::create([
            'person_id' => $trainee->id,
            'identification_id' => $case->id,
            'family_id' => $case->getAttribute('family_id'),
            'started_at' => now(),
        ])->refresh();
    }

    /**
     * Uncovers a clue and scores the question; what nobody looked at on that core stays covered, but costs its effort.
     */
    public function ask(TrainerRound $round, string $feature): void
    {
        $this->assertOpen($round);
        $model = $this->model($round);
        if (! $model->features->contains('code', $feature)) {
            throw Refusal::at('/feature', "There is no clue \"$feature\" in this family.");
        }
        if (in_array($feature, array_column($round->asked, 'feature'), true)) {
            throw Refusal::at('/feature', 'This clue is already uncovered.');
        }
        $next = array_column($model->given(self::answers($round->asked))->next, null, 'feature');
        $best = max([0.0, ...array_column($next, 'gainPerEffort')]);
        $score = $best > 0 ? $next[$feature]->gainPerEffort / $best : 1.0;
        $round->update([
            'asked' => [
                ...$round->asked,
                [
                    'feature' => $feature,
                    'value' => $round->identification->answers[$feature] ?? 'cannot see',
                    'score' => round($score, 4),
                    'gainBits' => $next[$feature]->gainBits,
                ],
            ],
            'effort' => $round->effort + $model->effort($feature),
        ]);
    }

    public function answer(TrainerRound $round, string $variant): void
    {
        $this->assertOpen($round);
        if (! VariantModel::of($round->family)->variants->contains('code', $variant)) {
            throw Refusal::at('/variant', "There is no variant \"$variant\" in this family.");
        }
        $scores = array_column($round->asked, 'score');
        $round->update([
            'answer' => $variant,
            'right_answer' => $variant === $round->identification->variant?->code,
            'question_score' => $scores === [] ? 0 : array_sum($scores) / count($scores),
            'engine_effort' => $this->engineEffort($round),
            'ended_at' => now(),
        ]);
    }

    /** @return array<string, mixed> what the trainee may see; ranking and truth only once the round is over */
    public function shown(TrainerRound $round): array
    {
        $model = $this->model($round);
        $names = $model->features->pluck('name', 'code');
        $over = $round->ended_at !== null;

        return [
            'id' => $round->id,
            'family' => ['code' => $round->family->code, 'name' => $round->family->name],
            'effort' => (float) $round->effort,
            'asked' => array_map(
                fn (array $a) => ['name' => $names[$a['feature']] ?? $a['feature']] + $a,
                $round->asked,
            ),
            'clues' => $model->features
                ->reject(fn ($f) => in_array($f->code, array_column($round->asked, 'feature'), true))
                ->map(
                    fn ($f) => [
                        'feature' => $f->code,
                        'name' => $f->name,
                        'where' => $f->body['where'],
                        'effort' => (float) $f->body['effort'],
                    ],
                )
                ->values()
                ->all(),
            'variants' => $model->variants->map(fn ($v) => ['code' => $v->code, 'name' => $v->name])->all(),
            'over' => $over,
            'result' => ! $over
                ? null
                : [
                    'answer' => $round->answer,
                    'truth' => $round->identification->variant?->code,
                    'right' => $round->right_answer,
                    'questionScore' => (float) $round->question_score,
                    'engineEffort' => (float) $round->engine_effort,
                    'ranking' => array_map(
                        fn (RankedHypothesis $h) => ['variant' => $h->id, 'posterior' => $h->posterior],
                        $model->given(self::answers($round->asked))->hypotheses,
                    ),
                ],
        ];
    }

    private function model(TrainerRound $round): VariantModel
    {
        $model = VariantModel::of($round->family);

        return $model->learning($this->learning->of($round->family, $model));
    }

    /**
     * @param  array<mixed>  $asked
     * @return array<string, string>
     */
    private static function answers(array $asked): array
    {
        return array_column($asked, 'value', 'feature');
    }

    /** What the engine itself spends on this core until it is sure. */
    private function engineEffort(TrainerRound $round): float
    {
        $model = $this->model($round);
        $answers = [];
        $effort = 0.0;
        while (count($answers) < $model->features->count()) {
            $ranking = $model->given($answers);
            if ($model->enough($ranking)) {
                break;
            }
            $clue = (string) array_key_first($model->order($ranking->next));
            $answers[$clue] = $round->identification->answers[$clue] ?? 'cannot see';
            $effort += $model->effort($clue);
        }

        return $effort;
    }

    private function assertOpen(TrainerRound $round): void
    {
        if ($round->ended_at !== null) {
            throw new Refusal('This round is over; deal the next core.', 409);
        }
    }
}
