<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Evidence\EvidenceModel;
use Yard\Core\Evidence\Feature;
use Yard\Core\Evidence\Hypothesis;
use Yard\Core\Evidence\NextLook;
use Yard\Core\Evidence\NumberFeature;
use Yard\Core\Evidence\RankedHypothesis;
use Yard\Core\Input;

/** evidence.rank: hypotheses in the order of what was seen, and what to look at next. */
final class EvidenceRank implements Calculator
{
    public function calculate(Input $in): array
    {
        $features = array_map(Feature::read(...), $in->list('features'));
        $byId = [];
        foreach ($features as $feature) {
            $byId[$feature->id] = $feature;
        }
        $hypotheses = [];
        foreach ($in->list('hypotheses', 1) as $item) {
            $hypotheses[] = self::hypothesis($item, $byId);
        }
        $observed = [];
        foreach ($in->optional('observed')?->asMap() ?? [] as $id => $value) {
            $observed[$id] = self::known($byId, $id, $value) instanceof NumberFeature
                ? $value->asNumber()
                : $value->asString();
        }
        \assert($hypotheses !== []);
        $ranking = (new EvidenceModel($features, $hypotheses))->given($observed);

        return [
            'ranking' => array_map(self::written(...), $ranking->hypotheses),
            'entropyBits' => $ranking->entropyBits,
            'next' => array_map(static fn (NextLook $n): array => $n->toArray(), $ranking->next),
            'mixed' => $ranking->mixed(),
        ] + ($ranking->warnings === [] ? [] : ['warnings' => $ranking->warnings]);
    }

    /** @param  array<string, Feature>  $features */
    private static function hypothesis(Input $in, array $features): Hypothesis
    {
        $expect = [];
        foreach ($in->optional('expect')?->asMap() ?? [] as $id => $expectation) {
            $expect[$id] = self::known($features, $id, $expectation)->readExpectation($expectation);
        }

        return new Hypothesis(
            $in->name('id'),
            $in->numberOr('prior', 1.0, min: 0.0),
            $expect,
        );
    }

    /** @param  array<string, Feature>  $features */
    private static function known(array $features, string|int $id, Input $at): Feature
    {
        return $features[$id] ?? throw $at->fail('unknown-feature', "There is no feature \"$id\".");
    }

    /** @return array<string, mixed> */
    private static function written(RankedHypothesis $h): array
    {
        return [
            'id' => $h->id,
            'posterior' => $h->posterior,
            'contradicts' => $h->contradicts,
            'supports' => $h->supports,
            'weightBits' => (object) $h->weightBits,
        ];
    }
}
