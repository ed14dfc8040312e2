<?php

namespace App\Stations\Identification\Queries;

use App\Catalog\Models\Family;
use App\Catalog\Models\FamilySpec;
use App\Catalog\Models\Variant;
use App\Shop\HouseRules;
use App\Shop\Queries\PeopleNames;
use App\Stations\Identification\Models\ClueAnswer;
use App\Yard\Models\Unit;
use Illuminate\Support\Collection;
use Yard\Core\BadInput;
use Yard\Core\Calculators;

/** The probability of each variant from the clues answered so far, through evidence.rank. */
final class VariantRanking
{
    /** Answers that say something about the clue, not about the unit. */
    public const NO_ANSWER = ['cannot see', 'broken off', 'not sure'];

    /**
     * A look costs nothing worth counting: such clues are asked before anything is measured or opened, while they tell
     * anything.
     */
    private const TELLS_NOTHING = 0.01;

    public function __construct(private readonly PeopleNames $names, private readonly FieldLearning $learning)
    {
    }

    /**
     * @return array{questions: list<array<string, mixed>>, ranking: list<array<string, mixed>>,
     *     aliens: list<array<string, mixed>>, entropyBits: float, mixed: bool, impossible: ?string,
     *     learning: array<string, mixed>}
     */
    public function of(Unit $unit, Family $family): array
    {
        [$features, $variants] = self::model($family);
        $learned = $this->learning->of($family, $features, $variants);
        $answers = ClueAnswer::query()->where('unit_id', $unit->id)->get()->keyBy('feature');
        $observed = $answers->map(fn (ClueAnswer $a) => $a->value)->all();
        try {
            // Once decided, nobody asks what to look at next: unanswered clues weigh nothing and are left out.
            $asked =
                $unit->identified_at === null
                    ? $features
                    : $features->filter(fn (FamilySpec $f) => $answers->has($f->code))->values();
            $result = Calculators::call('evidence.rank', self::input($asked, $variants, $observed, $learned));
            $impossible = null;
        } catch (BadInput $e) {
            $result = Calculators::call('evidence.rank', self::input($features, $variants, [], $learned));
            $impossible = $e->getMessage();
        }
        $order = self::order($result['next'], $features);
        $gain = array_column($result['next'], null, 'feature');
        $byCode = $variants->keyBy('code');

        return [
            'questions' => array_values(
                $features
                    ->map(
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
                            'gainBits' => $gain[$f->code]['gainBits'] ?? null,
                            'gainPerEffort' => $gain[$f->code]['gainPerEffort'] ?? null,
                            'source' => "$f->source, $f->edition",
                            'confidence' => $f->confidence,
                        ],
                    )
                    ->sortBy(fn (array $q) => $order[$q['feature']] ?? -1)
                    ->all(),
            ),
            'ranking' => array_values(
                array_map(
                    fn (array $r) => [
                        'variant' => $r['id'],
                        'name' => $byCode[$r['id']]?->name,
                        'years' => $byCode[$r['id']]?->from_year.'-'.$byCode[$r['id']]?->to_year,
                        'posterior' => $r['posterior'],
                        'contradicts' => $r['contradicts'],
                        'supports' => $r['supports'],
                        'weightBits' => $r['weightBits'],
                    ],
                    $result['ranking'],
                ),
            ),
            'aliens' => self::aliens($result['ranking'], $result['ranking'][0]['id'], $features, $answers),
            'entropyBits' => $result['entropyBits'],
            'mixed' => $result['mixed'],
            'impossible' => $impossible,
            'learning' => $this->shown($learned, $variants, $features),
        ];
    }

    /** @return array{Collection<int, FamilySpec>, Collection<int, Variant>} */
    public static function model(Family $family): array
    {
        return [
            FamilySpec::query()
                ->where('family_id', $family->id)
                ->where('kind', 'feature')
                ->orderBy('position')
                ->get(),
            Variant::query()->where('family_id', $family->id)->orderBy('id')->get(),
        ];
    }

    /**
     * Looks that cost nothing first, then by information for effort.
     *
     * @param  list<array{feature: string, gainBits: float, gainPerEffort: float}>  $next
     * @param  Collection<int, FamilySpec>  $features
     * @return array<string, int> feature => place
     */
    public static function order(array $next, Collection $features): array
    {
        $effort = $features->mapWithKeys(fn (FamilySpec $f) => [$f->code => (float) $f->body['effort']]);
        $free = fn (array $n): bool => $effort[$n['feature']] <=
            app(HouseRules::class)->number('identification-free-effort') && $n['gainBits'] > self::TELLS_NOTHING;
        usort(
            $next,
            fn (array $a, array $b): int => $free($b) <=> $free($a) ?: $b['gainPerEffort'] <=> $a['gainPerEffort'],
        );

        return array_flip(array_column($next, 'feature'));
    }

    /**
     * Whether it is worth asking on.
     *
     * @param array{ranking: list<array{posterior: float}>, next: list<array{feature: string, gainBits: float,
     *     gainPerEffort: float}>}  $result
     * @param  Collection<int, FamilySpec>  $features
     */
    public static function enough(array $result, Collection $features): bool
    {
        $posterior = $result['ranking'][0]['posterior'];
        if ($result['next'] === [] || $posterior >= app(HouseRules::class)->share('identification-free-looks')) {
            return true;
        }
        $next = array_key_first(self::order($result['next'], $features));

        return $posterior >= app(HouseRules::class)->share('identification-sure') &&
            (float) $features->firstOrFail('code', $next)->body['effort'] >
                app(HouseRules::class)->number('identification-free-effort');
    }

    /**
     * Parts that do not belong to a variant, by the answers that speak against it: what was seen, and where such a part
     * comes from.
     *
     * @param  list<array<string, mixed>>  $ranking
     * @param  Collection<int, FamilySpec>  $features
     * @param  Collection<string, ClueAnswer>  $answers
     * @return list<array{feature: string, part: string, seen: string, from: list<string>, ordering: string}>
     */
    public static function aliens(array $ranking, string $variant, Collection $features, Collection $answers): array
    {
        $rows = array_column($ranking, null, 'id');
        $byCode = $features->keyBy('code');

        return array_values(
            array_map(function (string $feature) use ($rows, $byCode, $answers, $variant): array {
                $from = array_values(
                    array_map(
                        fn (array $r) => $r['id'],
                        array_filter($rows, fn (array $r) => in_array($feature, $r['supports'], true)),
                    ),
                );
                $part = $byCode[$feature]->body['part'] ?? (string) $byCode[$feature]?->name;

                return [
                    'feature' => $feature,
                    'part' => $part,
                    'seen' => (string) $answers[$feature]?->value,
                    'from' => $from,
                    'ordering' => $byCode[$feature]->body['ordering'] ??
                        'Order what belongs to the '.
                            $part.
                            ' by what is fitted'.
                            ($from === [] ? '' : ' ('.implode(' or ', $from).')').
                            ", not by $variant.",
                ];
            }, $rows[$variant]['contradicts']),
        );
    }

    /**
     * @param  Collection<int, FamilySpec>  $features
     * @param  Collection<int, Variant>  $variants
     * @param  array<string, string>  $answers  feature => answer as it is stored
     * @param  array<string, mixed>|null  $learned  null: the catalog's own numbers
     * @return array<string, mixed>
     */
    public static function input(Collection $features, Collection $variants, array $answers, ?array $learned): array
    {
        $observed = [];
        foreach ($features as $feature) {
            $value = $answers[$feature->code] ?? null;
            if ($value !== null && ! in_array($value, self::NO_ANSWER, true)) {
                $observed[$feature->code] = ($feature->body['kind'] ?? '') === 'number' ? (float) $value : $value;
            }
        }
        $on = $learned !== null && $learned['on'];
        $total = max(1e-9, (float) $variants->sum(fn (Variant $v) => (float) $v->prior));
        $known = $features->keyBy('code')->all();

        return [
            'hypotheses' => $variants
                ->map(
                    fn (Variant $v) => [
                        'id' => $v->code,
                        'prior' => $on
                            ? FieldLearning::prior(
                                (float) $v->prior / $total,
                                $learned['counts'][$v->code] ?? 0,
                                $learned['weight'],
                            )
                            : (float) $v->prior,
                        'expect' => (object) array_intersect_key($v->expect, $known),
                    ],
                )
                ->all(),
            'features' => $features
                ->map(
                    fn (FamilySpec $f) => ['id' => $f->code] +
                        ($on && isset($learned['reliability'][$f->code])
                            ? ['reliability' => $learned['reliability'][$f->code]['reliability']]
                            : []) +
                        array_intersect_key(
                            $f->body,
                            array_flip(['kind', 'values', 'reliability', 'effort', 'tolerance', 'range']),
                        ),
                )
                ->values()
                ->all(),
            'observed' => (object) $observed,
        ];
    }

    /**
     * @param  array<string, mixed>  $learned
     * @param  Collection<int, Variant>  $variants
     * @param  Collection<int, FamilySpec>  $features
     * @return array<string, mixed>
     */
    private function shown(array $learned, Collection $variants, Collection $features): array
    {
        $total = max(1e-9, (float) $variants->sum(fn (Variant $v) => (float) $v->prior));
        $used = $variants->map(
            fn (Variant $v) => FieldLearning::prior(
                (float) $v->prior / $total,
                $learned['counts'][$v->code] ?? 0,
                $learned['weight'],
            ),
        );

        return [
            'on' => $learned['on'],
            'weight' => $learned['weight'],
            'priors' => $variants
                ->map(
                    fn (Variant $v, int $i) => [
                        'variant' => $v->code,
                        'catalog' => (float) $v->prior / $total,
                        'confirmed' => $learned['counts'][$v->code] ?? 0,
                        'used' => $learned['on'] ? $used[$i] / $used->sum() : (float) $v->prior / $total,
                    ],
                )
                ->all(),
            'reliabilities' => $features
                ->filter(fn (FamilySpec $f) => isset($learned['reliability'][$f->code]))
                ->map(
                    fn (FamilySpec $f) => [
                        'feature' => $f->code,
                        'name' => $f->name,
                        'catalog' => (float) $f->body['reliability'],
                        'cases' => $learned['reliability'][$f->code]['cases'],
                        'learned' => $learned['reliability'][$f->code]['reliability'],
                    ],
                )
                ->values()
                ->all(),
        ];
    }
}
