<?php

namespace App\Stations\Identification\Queries;

use App\Catalog\Models\Family;
use App\Catalog\Models\FamilySpec;
use App\Catalog\Models\Variant;
use App\Shop\HouseRules;
use Illuminate\Support\Collection;
use Yard\Core\Evidence\ChoiceFeature;
use Yard\Core\Evidence\EvidenceModel;
use Yard\Core\Evidence\Feature;
use Yard\Core\Evidence\Hypothesis;
use Yard\Core\Evidence\NextLook;
use Yard\Core\Evidence\NumberFeature;
use Yard\Core\Evidence\RankedHypothesis;
use Yard\Core\Evidence\Ranking;

/** The variants of a family and the clues that tell them apart, as the catalog and the house know them. */
final readonly class VariantModel
{
    /** Answers that say something about the clue, not about the unit. */
    public const NO_ANSWER = ['cannot see', 'broken off', 'not sure'];

    /** Bits below which a free look is not worth the while. */
    private const TELLS_NOTHING = 0.01;

    /**
     * @param  Collection<int, FamilySpec>  $features
     * @param  Collection<int, Variant>  $variants
     * @param  LearnedClues|null  $learned  null: the catalog's own numbers
     */
    public function __construct(
        public Collection $features,
        public Collection $variants,
        public ?LearnedClues $learned = null,
    ) {
    }

    public static function of(Family $family): self
    {
        return new self(
            FamilySpec::query()
                ->where('family_id', $family->id)
                ->where('kind', 'feature')
                ->orderBy('position')
                ->get(),
            Variant::query()->where('family_id', $family->id)->orderBy('id')->get(),
        );
    }

    public function learning(LearnedClues $learned): self
    {
        return new self($this->features, $this->variants, $learned);
    }

    /** @param  list<string>  $codes */
    public function onlyClues(array $codes): self
    {
        return new self($this->features->whereIn('code', $codes)->values(), $this->variants, $this->learned);
    }

    /**
     * @param  array<string, string>  $answers  clue => answer as it is stored
     * @param  float|null  $reliability  of every clue, where it is to be believed otherwise than the catalog says
     *
     * @throws \Yard\Core\BadInput when no variant explains them all
     */
    public function given(array $answers, ?float $reliability = null): Ranking
    {
        $observed = [];
        foreach ($this->features as $feature) {
            $value = $answers[$feature->code] ?? null;
            if ($value !== null && ! in_array($value, self::NO_ANSWER, true)) {
                $observed[$feature->code] = self::isNumber($feature) ? (float) $value : $value;
            }
        }
        $features = $this->features->map(fn (FamilySpec $f): Feature => $this->feature($f, $reliability));

        return (new EvidenceModel(array_values($features->all()), $this->hypotheses()))
            ->given($observed)
            ->without(array_map(strval(...), array_keys($answers)));
    }

    /**
     * Looks that cost nothing first, then by information for effort.
     *
     * @param  list<NextLook>  $next
     * @return array<string, int> clue => place
     */
    public function order(array $next): array
    {
        $limit = app(HouseRules::class)->number('identification-free-effort');
        $free = fn (NextLook $n): bool => $this->effort($n->feature) <= $limit && $n->gainBits > self::TELLS_NOTHING;
        usort(
            $next,
            fn (NextLook $a, NextLook $b): int => $free($b) <=> $free($a) ?: $b->gainPerEffort <=> $a->gainPerEffort,
        );

        return array_flip(array_column($next, 'feature'));
    }

    /** Whether it is not worth asking on. */
    public function enough(Ranking $ranking): bool
    {
        $rules = app(HouseRules::class);
        $posterior = $ranking->hypotheses[0]->posterior;
        if ($ranking->next === [] || $posterior >= $rules->share('identification-free-looks')) {
            return true;
        }

        return $posterior >= $rules->share('identification-sure') &&
            $this->effort((string) array_key_first($this->order($ranking->next))) >
                $rules->number('identification-free-effort');
    }

    public function effort(string $clue): float
    {
        return (float) $this->features->firstOrFail('code', $clue)->body['effort'];
    }

    /**
     * Parts that do not belong to a variant, by the answers that speak against it: what was seen, and where such a part
     * comes from.
     *
     * @param  array<string, string>  $answers
     * @return list<array{feature: string, part: string, seen: string, from: list<string>, ordering: string}>
     */
    public function aliens(Ranking $ranking, string $variant, array $answers): array
    {
        $own = array_column($ranking->hypotheses, null, 'id')[$variant];

        return array_map(function (string $clue) use ($ranking, $answers, $variant): array {
            $supported = fn (RankedHypothesis $h): bool => in_array($clue, $h->supports, true);
            $from = array_column(array_filter($ranking->hypotheses, $supported), 'id');
            $spec = $this->features->firstOrFail('code', $clue);
            $part = $spec->body['part'] ?? $spec->name;
            $fitted = $from === [] ? '' : ' ('.implode(' or ', $from).')';

            return [
                'feature' => $clue,
                'part' => $part,
                'seen' => $answers[$clue] ?? '',
                'from' => $from,
                'ordering' => $spec->body['ordering'] ??
                    "Order what belongs to the $part by what is fitted$fitted, not by $variant.",
            ];
        }, $own->contradicts);
    }

    /** @return array<string, float> variant => the catalog's share */
    public function shares(): array
    {
        $total = max(1e-9, (float) $this->variants->sum(fn (Variant $v) => (float) $v->prior));

        return $this->variants->mapWithKeys(fn (Variant $v) => [$v->code => (float) $v->prior / $total])->all();
    }

    /** @return non-empty-list<Hypothesis> */
    private function hypotheses(): array
    {
        $shares = $this->shares();
        $known = $this->features->keyBy('code')->all();
        $hypotheses = [];
        foreach ($this->variants as $v) {
            $prior = $this->learned?->on ? $this->learned->prior($v->code, $shares[$v->code]) : (float) $v->prior;
            $expect = array_map(
                fn (array $e): array => array_map(floatval(...), $e),
                array_intersect_key($v->expect, $known),
            );
            $hypotheses[] = new Hypothesis($v->code, $prior, $expect);
        }
        assert($hypotheses !== []);

        return $hypotheses;
    }

    private function feature(FamilySpec $f, ?float $reliability): Feature
    {
        $body = $f->body;
        $reliability ??= $this->learned?->on ? $this->learned->reliability($f->code) : null;
        $reliability ??= (float) ($body['reliability'] ?? 1.0);
        $effort = (float) ($body['effort'] ?? 1.0);

        return self::isNumber($f)
            ? new NumberFeature(
                $f->code,
                isset($body['range']) ? array_values(array_map(floatval(...), $body['range'])) : null,
                (float) ($body['tolerance'] ?? 0.0),
                $reliability,
                $effort,
            )
            : new ChoiceFeature($f->code, $body['values'], $reliability, $effort);
    }

    private static function isNumber(FamilySpec $f): bool
    {
        return ($f->body['kind'] ?? '') === 'number';
    }
}
