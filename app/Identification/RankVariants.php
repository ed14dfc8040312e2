<?php

namespace App\Identification;

use App\Catalog\Family;
use App\Catalog\Spec;
use App\Catalog\Variant;
use App\Shop\Names;
use App\Track\Unit;
use Illuminate\Support\Collection;
use Yard\Core\BadInput;
use Yard\Core\Calculators;

/** The probability of each variant from the clues answered so far, through evidence.rank. */
final class RankVariants
{
    /** Answers that say something about the clue, not about the unit. */
    public const NO_ANSWER = ['cannot see', 'broken off', 'not sure'];

    public function __construct(private readonly Names $names)
    {
    }

    /**
     * @return array{questions: list<array<string, mixed>>, ranking: list<array<string, mixed>>, entropyBits: float, mixed: bool, impossible: ?string}
     */
    public function of(Unit $unit, Family $family): array
    {
        $features = Spec::query()->where('family_id', $family->id)->where('kind', 'feature')->orderBy('position')->get();
        $variants = Variant::query()->where('family_id', $family->id)->orderBy('id')->get();
        $answers = ClueAnswer::query()->where('unit_id', $unit->id)->get()->keyBy('feature');
        try {
            // Once decided, nobody asks what to look at next: unanswered clues weigh nothing and are left out.
            $asked = $unit->identified_at === null ? $features : $features->filter(fn (Spec $f) => $answers->has($f->code))->values();
            $result = Calculators::call('evidence.rank', $this->input($asked, $variants, $answers));
            $impossible = null;
        } catch (BadInput $e) {
            $result = Calculators::call('evidence.rank', $this->input($features, $variants, new Collection));
            $impossible = $e->getMessage();
        }
        $gain = array_column($result['next'], null, 'feature');

        return [
            'questions' => $features->map(fn (Spec $f) => [
                'feature' => $f->code, 'name' => $f->name, 'where' => $f->body['where'], 'how' => $f->body['how'] ?? '', 'kind' => $f->body['kind'] ?? 'choice', 'values' => $f->body['values'] ?? [], 'unit' => $f->body['unit'] ?? null, 'effort' => $f->body['effort'],
                'answer' => $answers[$f->code]->value ?? null, 'answeredBy' => $this->names->of($answers[$f->code]->answered_by ?? null), 'gainBits' => $gain[$f->code]['gainBits'] ?? null, 'gainPerEffort' => $gain[$f->code]['gainPerEffort'] ?? null,
                'source' => "$f->source, $f->edition", 'confidence' => $f->confidence,
            ])->sortByDesc(fn (array $q) => $q['answer'] === null ? 1000 + $q['gainPerEffort'] : 0)->values()->all(),
            'ranking' => array_map(fn (array $r) => ['variant' => $r['id'], 'name' => $variants->firstWhere('code', $r['id'])->name, 'years' => $variants->firstWhere('code', $r['id'])->from_year.'-'.$variants->firstWhere('code', $r['id'])->to_year, 'posterior' => $r['posterior'], 'contradicts' => $r['contradicts'], 'supports' => $r['supports'], 'weightBits' => $r['weightBits']], $result['ranking']),
            'entropyBits' => $result['entropyBits'], 'mixed' => $result['mixed'], 'impossible' => $impossible,
        ];
    }

    /**
     * @param  Collection<int, Spec>  $features
     * @param  Collection<int, Variant>  $variants
     * @param  Collection<string, ClueAnswer>  $answers
     * @return array<string, mixed>
     */
    private function input(Collection $features, Collection $variants, Collection $answers): array
    {
        $observed = [];
        foreach ($features as $feature) {
            $value = $answers[$feature->code]->value ?? null;
            if ($value !== null && ! in_array($value, self::NO_ANSWER, true)) {
                $observed[$feature->code] = ($feature->body['kind'] ?? '') === 'number' ? (float) $value : $value;
            }
        }

        return [
            'hypotheses' => $variants->map(fn (Variant $v) => ['id' => $v->code, 'prior' => (float) $v->prior, 'expect' => (object) array_intersect_key($v->expect, $features->keyBy('code')->all())])->all(),
            'features' => $features->map(fn (Spec $f) => ['id' => $f->code] + array_intersect_key($f->body, array_flip(['kind', 'values', 'reliability', 'effort', 'tolerance', 'range'])))->values()->all(),
            'observed' => (object) $observed,
        ];
    }
}
