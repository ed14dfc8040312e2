<?php

declare(strict_types=1);

namespace Yard\Core\Evidence;

use Yard\Core\BadInput;

/**
 * Ranks hypotheses from observations that are independent given the hypothesis (naive Bayes), says what each
 * observation weighs, and which unobserved feature promises most information for its effort.
 */
final class EvidenceModel
{
    private const SAME = 1e-12;

    /** Hypotheses times features. */
    private const MOST = 100_000;

    /** @var array<string, Feature> */
    private array $features = [];

    /** @var list<string> */
    private array $ids = [];

    /** @var list<float> */
    private array $priors = [];

    /** @var array<string, list<mixed>> feature => hypothesis => expectation */
    private array $expect = [];

    /** @var list<array{code: string, hypothesis: string, feature: string, message: string}> */
    private array $warnings = [];

    /**
     * @param  list<Feature>  $features
     * @param  non-empty-list<Hypothesis>  $hypotheses
     *
     * @throws BadInput at /features or /hypotheses
     */
    public function __construct(array $features, array $hypotheses)
    {
        if (count($features) * count($hypotheses) > self::MOST) {
            [$f, $h] = [count($features), count($hypotheses)];
            throw new BadInput(
                'too-large',
                "$h hypotheses with $f features are too many to weigh at once; leave out what nobody would look at.",
                '/hypotheses',
            );
        }
        foreach ($features as $n => $feature) {
            if (isset($this->features[$feature->id])) {
                throw self::twice('feature', $feature->id, "/features/$n/id");
            }
            $this->features[$feature->id] = $feature;
        }
        $known = [];
        foreach ($hypotheses as $n => $hypothesis) {
            if (isset($known[$hypothesis->id])) {
                throw self::twice('hypothesis', $hypothesis->id, "/hypotheses/$n/id");
            }
            $known[$hypothesis->id] = true;
            $this->add($hypothesis, "/hypotheses/$n/expect");
        }
        $total = array_sum($this->priors);
        if ($total <= 0.0) {
            throw new BadInput(
                'prior',
                'At least one hypothesis must have a prior greater than 0.',
                '/hypotheses',
            );
        }
        $this->priors = array_map(static fn (float $p): float => $p / $total, $this->priors);
    }

    /**
     * @param  array<string, string|float>  $observed  feature => what was seen
     *
     * @throws BadInput at /observed for what cannot be seen, or what no hypothesis explains
     */
    public function given(array $observed): Ranking
    {
        $logs = array_map(static fn (float $p): float => $p > 0.0 ? log($p) : -INF, $this->priors);
        $weights = array_fill(0, count($this->ids), []);
        foreach ($observed as $id => $value) {
            $feature = $this->seen((string) $id, $value);
            $expected = $this->expect[$feature->id];
            $neutral = $feature->neutral($expected, $this->priors, $value);
            foreach (array_keys($this->ids) as $h) {
                $likelihood = $feature->likelihood($expected[$h], $value);
                $logs[$h] += $likelihood > 0.0 ? log($likelihood) : -INF;
                $weights[$h][$feature->id] = [$likelihood, $neutral];
            }
        }
        $posterior =
            self::normalise(array_values($logs)) ??
            throw new BadInput(
                'impossible-evidence',
                'No hypothesis can explain these observations together: every one of them rules the rest out.',
                '/observed',
            );
        $ranked = array_map(self::ranked(...), $this->ids, $posterior, $weights);
        \assert($ranked !== []);
        usort($ranked, static fn (RankedHypothesis $a, RankedHypothesis $b): int => self::larger(
            $a->posterior,
            $b->posterior,
            self::SAME * max($a->posterior, $b->posterior),
        ));

        return new Ranking(
            $ranked,
            self::entropy($posterior),
            $this->next(array_diff_key($this->features, $observed), $posterior),
            $this->warnings,
        );
    }

    private function add(Hypothesis $hypothesis, string $at): void
    {
        $this->ids[] = $hypothesis->id;
        $this->priors[] = $hypothesis->prior;
        foreach (array_keys($hypothesis->expect) as $feature) {
            isset($this->features[$feature]) ||
                throw new BadInput('unknown-feature', "There is no feature \"$feature\".", "$at/$feature");
        }
        foreach ($this->features as $feature) {
            try {
                $expectation = $feature->expectation($hypothesis->expect[$feature->id] ?? null);
            } catch (BadInput $e) {
                throw $e->under("$at/$feature->id");
            }
            if ($feature->isPartial($expectation)) {
                $this->warnings[] = [
                    'code' => 'partial-likelihoods',
                    'hypothesis' => $hypothesis->id,
                    'feature' => $feature->id,
                    'message' => "\"$hypothesis->id\" lists only some values of \"$feature->id\"; the others count as "
                        .'impossible.',
                ];
            }
            $this->expect[$feature->id][] = $expectation;
        }
    }

    private function seen(string $id, string|float $value): Feature
    {
        $feature =
            $this->features[$id] ??
            throw new BadInput('unknown-feature', "There is no feature \"$id\".", "/observed/$id");
        try {
            $feature->assertPossible($value);
        } catch (BadInput $e) {
            throw $e->under("/observed/$id");
        }

        return $feature;
    }

    /** @param  array<string, array{float, float}>  $weights  feature => likelihood, neutral */
    private static function ranked(string $id, float $posterior, array $weights): RankedHypothesis
    {
        $contradicts = $supports = $bits = [];
        foreach ($weights as $feature => [$likelihood, $neutral]) {
            if ($likelihood < $neutral * (1.0 - self::SAME)) {
                $contradicts[] = (string) $feature;
            } elseif ($likelihood > $neutral * (1.0 + self::SAME)) {
                $supports[] = (string) $feature;
            }
            if ($likelihood > 0.0 && $neutral > 0.0) {
                $bits[$feature] = log($likelihood / $neutral, 2);
            }
        }

        return new RankedHypothesis($id, $posterior, $contradicts, $supports, $bits);
    }

    /**
     * Expected information of every unobserved feature, best gain per effort first.
     *
     * @param  array<string, Feature>  $features
     * @param  list<float>  $posterior
     * @return list<NextLook>
     */
    private function next(array $features, array $posterior): array
    {
        $before = self::entropy($posterior);
        $next = [];
        foreach ($features as $feature) {
            $weighed = $feature->outcomes($this->expect[$feature->id], $posterior);
            $after = 0.0;
            foreach ($weighed['outcomes'] as $likelihoods) {
                $joint = array_map(static fn (float $l, float $p): float => $l * $p, $likelihoods, $posterior);
                $total = array_sum($joint);
                if ($total > 0.0) {
                    $after += $total * self::entropy(array_map(static fn (float $j): float => $j / $total, $joint));
                }
            }
            $gain = $before - $after < 1e-15 ? 0.0 : $before - $after;
            $next[] = new NextLook($feature->id, $gain, $gain / $feature->effort, $weighed['binEdges'] ?? null);
        }
        usort(
            $next,
            static fn (NextLook $a, NextLook $b): int => self::larger($a->gainPerEffort, $b->gainPerEffort, self::SAME),
        );

        return $next;
    }

    /** The larger first; equal within the tolerance keeps the order given. */
    private static function larger(float $a, float $b, float $tolerance): int
    {
        return abs($a - $b) <= $tolerance ? 0 : $b <=> $a;
    }

    private static function twice(string $what, string $id, string $at): BadInput
    {
        return new BadInput('duplicate', "The $what \"$id\" is listed twice.", $at);
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
