<?php

declare(strict_types=1);

namespace Yard\Core\Evidence;

use Yard\Core\Calculator;
use Yard\Core\Input;

/**
 * Ranks hypotheses from observations that are independent given the hypothesis (naive Bayes), says what each
 * observation weighs, and which unobserved feature promises most information for its effort.
 */
final class RankHypotheses implements Calculator
{
    private const SAME = 1e-12;

    public function calculate(Input $in): array
    {
        /** @var array<string, Feature> $features */
        $features = [];
        foreach ($in->list('features') as $item) {
            $feature = Feature::read($item);
            if (isset($features[$feature->id])) {
                throw $item->at('id')->fail('duplicate', "The feature \"$feature->id\" is listed twice.");
            }
            $features[$feature->id] = $feature;
        }
        [$ids, $priors, $expect, $warnings] = self::readHypotheses($in, $features);
        $observed = [];
        foreach ($in->optional('observed')?->asMap() ?? [] as $id => $value) {
            $feature = $features[$id] ?? throw $value->fail('unknown-feature', "There is no feature \"$id\".");
            $observed[$feature->id] = $feature->observation($value);
        }

        $logs = array_map(static fn (float $p): float => $p > 0.0 ? log($p) : -INF, $priors);
        $weights = array_fill(0, count($ids), []);
        foreach ($observed as $id => $value) {
            $feature = $features[$id];
            $neutral = $feature->neutral($expect[$feature->id], $priors, $value);
            foreach (array_keys($ids) as $h) {
                $likelihood = $feature->likelihood($expect[$feature->id][$h], $value);
                $logs[$h] += $likelihood > 0.0 ? log($likelihood) : -INF;
                $weights[$h][$feature->id] = [$likelihood, $neutral];
            }
        }
        $posterior =
            self::normalise(array_values($logs)) ??
            throw $in
                ->at('observed')
                ->fail(
                    'impossible-evidence',
                    'No hypothesis can explain these observations together: every one of them rules the rest out.',
                );

        $ranking = [];
        foreach ($ids as $h => $id) {
            $row = [
                'id' => $id,
                'posterior' => $posterior[$h],
                'contradicts' => [],
                'supports' => [],
                'weightBits' => [],
            ];
            foreach ($weights[$h] as $feature => [$likelihood, $neutral]) {
                if ($likelihood < $neutral * (1.0 - self::SAME)) {
                    $row['contradicts'][] = (string) $feature;
                } elseif ($likelihood > $neutral * (1.0 + self::SAME)) {
                    $row['supports'][] = (string) $feature;
                }
                if ($likelihood > 0.0 && $neutral > 0.0) {
                    $row['weightBits'][$feature] = log($likelihood / $neutral, 2);
                }
            }
            $row['weightBits'] = (object) $row['weightBits'];
            $ranking[] = $row;
        }
        usort(
            $ranking,
            static fn (array $a, array $b): int => abs($a['posterior'] - $b['posterior']) <=
            self::SAME * max($a['posterior'], $b['posterior'])
                ? 0
                : $b['posterior'] <=> $a['posterior'],
        );

        $out = [
            'ranking' => $ranking,
            'entropyBits' => self::entropy($posterior),
            'next' => self::next(array_diff_key($features, $observed), $expect, $posterior),
            'mixed' => $ranking[0]['posterior'] >= 0.5 && $ranking[0]['contradicts'] !== [],
        ];

        return $warnings === [] ? $out : $out + ['warnings' => $warnings];
    }

    /**
     * @param  array<string, Feature>  $features
     * @return array{list<string>, list<float>, array<string, list<mixed>>, list<array<string, string>>} ids, priors,
     *     feature => hypothesis => expectation, warnings
     */
    private static function readHypotheses(Input $in, array $features): array
    {
        $ids = $priors = $expect = $warnings = [];
        foreach ($in->list('hypotheses', 1) as $item) {
            $id = $item->name('id');
            if (in_array($id, $ids, true)) {
                throw $item->at('id')->fail('duplicate', "The hypothesis \"$id\" is listed twice.");
            }
            $ids[] = $id;
            $priors[] = $item->has('prior') ? $item->number('prior', min: 0.0) : 1.0;
            $mentioned = $item->optional('expect')?->asMap() ?? [];
            foreach ($mentioned as $featureId => $expectation) {
                if (! isset($features[$featureId])) {
                    throw $expectation->fail('unknown-feature', "There is no feature \"$featureId\".");
                }
            }
            foreach ($features as $feature) {
                $read = $feature->expectation($mentioned[$feature->id] ?? null);
                if ($feature->isPartial($read)) {
                    $warnings[] = [
                        'code' => 'partial-likelihoods',
                        'hypothesis' => $id,
                        'feature' => $feature->id,
                        'message' => "\"$id\" lists only some values of \"$feature->id\"; the others count as "
                            .'impossible.',
                    ];
                }
                $expect[$feature->id][] = $read;
            }
        }
        $total = array_sum($priors);
        if ($total <= 0.0) {
            throw $in->at('hypotheses')->fail('prior', 'At least one hypothesis must have a prior greater than 0.');
        }

        return [$ids, array_map(static fn (float $p): float => $p / $total, $priors), $expect, $warnings];
    }

    /**
     * Expected information of every unobserved feature, best gain per effort first.
     *
     * @param  array<string, Feature>  $features
     * @param  array<string, list<mixed>>  $expect
     * @param  list<float>  $posterior
     * @return list<array<string, mixed>>
     */
    private static function next(array $features, array $expect, array $posterior): array
    {
        $before = self::entropy($posterior);
        $next = [];
        foreach ($features as $feature) {
            $weighed = $feature->outcomes($expect[$feature->id], $posterior);
            $after = 0.0;
            foreach ($weighed['outcomes'] as $likelihoods) {
                $joint = array_map(static fn (float $l, float $p): float => $l * $p, $likelihoods, $posterior);
                $total = array_sum($joint);
                if ($total > 0.0) {
                    $after += $total * self::entropy(array_map(static fn (float $j): float => $j / $total, $joint));
                }
            }
            $gain = max(0.0, $before - $after);
            $gain = $gain < 1e-15 ? 0.0 : $gain;
            $next[] =
                ['feature' => $feature->id, 'gainBits' => $gain, 'gainPerEffort' => $gain / $feature->effort] +
                (isset($weighed['binEdges']) ? ['binEdges' => $weighed['binEdges']] : []);
        }
        usort(
            $next,
            static fn (array $a, array $b): int => abs($a['gainPerEffort'] - $b['gainPerEffort']) <= self::SAME
                ? 0
                : $b['gainPerEffort'] <=> $a['gainPerEffort'],
        );

        return $next;
    }

    /**
     * @param  list<float>  $logs
     * @return list<float>|null null when every entry is -INF
     */
    private static function normalise(array $logs): ?array
    {
        $largest = max([-INF, ...$logs]);
        if (is_infinite($largest)) {
            return null;
        }
        $p = array_map(static fn (float $l): float => exp($l - $largest), $logs);
        $sum = array_sum($p);

        return array_map(static fn (float $x): float => $x / $sum, $p);
    }

    /** @param  list<float>  $p */
    private static function entropy(array $p): float
    {
        $h = 0.0;
        foreach ($p as $x) {
            $h -= $x > 0.0 ? $x * log($x, 2) : 0.0;
        }

        return max(0.0, $h);
    }
}
