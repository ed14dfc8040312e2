<?php

namespace App\Stations\Identification\Queries;

use App\Catalog\Models\Family;
use App\Catalog\Models\FamilySpec;
use App\Catalog\Models\Variant;
use App\Shop\Queries\PeopleNames;
use App\Stations\Identification\Models\ClueAnswer;
use App\Yard\Models\Unit;
use Illuminate\Database\Eloquent\Collection;
use Yard\Core\BadInput;
use Yard\Core\Evidence\NextLook;
use Yard\Core\Evidence\RankedHypothesis;
use Yard\Core\Evidence\Ranking;

/** The probability of each variant from the clues answered so far, and what to look at next. */
final class VariantRanking
{
    public function __construct(private readonly PeopleNames $names, private readonly FieldLearning $learning)
    {
    }

    /**
     * @return array{Ranking, VariantModel, array<string, string>, ?string} the ranking, what it stands on, the answers,
     *     and why they cannot all be so: then the ranking is that of no answer
     */
    public function ranked(Unit $unit, Family $family): array
    {
        return $this->weighed($unit, $family, self::answers($unit));
    }

    /**
     * @param  Collection<string, ClueAnswer>  $given
     * @return array{Ranking, VariantModel, array<string, string>, ?string}
     */
    private function weighed(Unit $unit, Family $family, Collection $given): array
    {
        $model = VariantModel::of($family);
        $model = $model->learning($this->learning->of($family, $model));
        $answers = $given->map(fn (ClueAnswer $a) => $a->value)->all();
        // Once decided, nobody asks what to look at next: unanswered clues weigh nothing and are left out.
        $asked = $unit->identified_at === null ? $model : $model->onlyClues(array_keys($answers));
        try {
            return [$asked->given($answers), $model, $answers, null];
        } catch (BadInput $e) {
            return [$model->given([]), $model, $answers, $e->getMessage()];
        }
    }

    /**
     * @return array{questions: list<array<string, mixed>>, ranking: list<array<string, mixed>>,
     *     aliens: list<array<string, mixed>>, entropyBits: float, mixed: bool, impossible: ?string,
     *     learning: array<string, mixed>}
     */
    public function of(Unit $unit, Family $family): array
    {
        $given = self::answers($unit);
        [$ranking, $model, $answers, $impossible] = $this->weighed($unit, $family, $given);
        $byCode = $model->variants->keyBy('code');

        return [
            'questions' => $this->questions($model, $ranking->next, $given),
            'ranking' => array_map(
                fn (RankedHypothesis $h) => [
                    'variant' => $h->id,
                    'name' => $byCode[$h->id]?->name,
                    'years' => $byCode[$h->id]?->from_year.'-'.$byCode[$h->id]?->to_year,
                    'posterior' => $h->posterior,
                    'contradicts' => $h->contradicts,
                    'supports' => $h->supports,
                    'weightBits' => (object) $h->weightBits,
                ],
                $ranking->hypotheses,
            ),
            'aliens' => $model->aliens($ranking, $ranking->hypotheses[0]->id, $answers),
            'entropyBits' => $ranking->entropyBits,
            'mixed' => $ranking->mixed(),
            'impossible' => $impossible,
            'learning' => self::shown($model),
        ];
    }

    /** @return Collection<string, ClueAnswer> */
    private static function answers(Unit $unit): Collection
    {
        return ClueAnswer::query()->where('unit_id', $unit->id)->get()->keyBy('feature');
    }

    /**
     * @param  list<NextLook>  $next
     * @param  Collection<string, ClueAnswer>  $answers
     * @return list<array<string, mixed>>
     */
    private function questions(VariantModel $model, array $next, Collection $answers): array
    {
        $order = $model->order($next);
        $gain = array_column($next, null, 'feature');
        $rows = $model->features->map(
            fn (FamilySpec $f) => [
                'feature' => $f->code,
                'name' => $f->name,
                'where' => $f->body['where'],
                'how' => $f->body['how'] ?? '',
                'kind' => $f->body['kind'] ?? 'choice',
                'values' => $f->body['values'] ?? [],
                'unit' => $f->body['unit'] ?? null,
                'effort' => $f->body['effort'],
                'answer' => $answers[$f->code]->value ?? null,
                'answeredBy' => $this->names->of($answers[$f->code]->answered_by ?? null),
                'gainBits' => $gain[$f->code]->gainBits ?? null,
                'gainPerEffort' => $gain[$f->code]->gainPerEffort ?? null,
                'source' => "$f->source, $f->edition",
                'confidence' => $f->confidence,
            ],
        );

        return array_values($rows->sortBy(fn (array $q) => $order[$q['feature']] ?? -1)->all());
    }

    /** @return array<string, mixed> what the house has learned, beside the catalog's own numbers */
    private static function shown(VariantModel $model): array
    {
        $learned = $model->learned ?? new LearnedClues(false, 0.0, [], []);
        $shares = $model->shares();
        $used = array_map(
            fn (string $variant, float $share): float => $learned->prior($variant, $share),
            array_keys($shares),
            $shares,
        );

        return [
            'on' => $learned->on,
            'weight' => $learned->weight,
            'priors' => array_values(
                $model->variants
                    ->values()
                    ->map(
                        fn (Variant $v, int $i) => [
                            'variant' => $v->code,
                            'catalog' => $shares[$v->code],
                            'confirmed' => $learned->count($v->code),
                            'used' => $learned->on ? $used[$i] / array_sum($used) : $shares[$v->code],
                        ],
                    )
                    ->all(),
            ),
            'reliabilities' => array_values(
                $model->features
                    ->filter(fn (FamilySpec $f) => $learned->reliability($f->code) !== null)
                    ->map(
                        fn (FamilySpec $f) => [
                            'feature' => $f->code,
                            'name' => $f->name,
                            'catalog' => (float) $f->body['reliability'],
                            'cases' => $learned->reliabilities[$f->code]['cases'],
                            'learned' => $learned->reliability($f->code),
                        ],
                    )
                    ->all(),
            ),
        ];
    }
}
