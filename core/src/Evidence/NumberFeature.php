<?php

declare(strict_types=1);

namespace Yard\Core\Evidence;

use Yard\Core\BadInput;
use Yard\Core\Input;
use Yard\Core\Maths\Special;

/**
 * A measured feature. An expectation is a normal density of variance sd^2 + tolerance^2 / 3 (a reading uniform within
 * +- tolerance), mixed by reliability with a uniform density over the range the catalog states.
 */
final class NumberFeature extends Feature
{
    private const BINS = 20;

    /** @var array{float, float}|null */
    private readonly ?array $range;

    /**
     * @param  list<float>|null  $range  of plausible readings: two numbers, the smaller first
     *
     * @throws BadInput at /range
     */
    public function __construct(
        string $id,
        ?array $range = null,
        private readonly float $tolerance = 0.0,
        float $reliability = 1.0,
        float $effort = 1.0,
    ) {
        parent::__construct($id, $reliability, $effort);
        if ($range !== null && (count($range) !== 2 || $range[0] >= $range[1])) {
            throw new BadInput('range', 'The range is two numbers, the smaller first.', '/range');
        }
        $this->range = $range === null ? null : [$range[0], $range[1]];
        if ($reliability < 1.0) {
            $this->spread();
        }
    }

    public function readExpectation(Input $in): array
    {
        return ['mean' => $in->number('mean'), 'sd' => $in->number('sd', min: 0.0)];
    }

    /** @return array{float, float}|null mean and standard deviation */
    public function expectation(?array $given): ?array
    {
        if ($given === null) {
            $this->spread();

            return null;
        }
        $sd = sqrt(($given['sd'] ?? 0.0) ** 2 + $this->tolerance ** 2 / 3.0);
        if ($sd <= 0.0) {
            throw new BadInput('range', "\"$this->id\" needs an sd or a tolerance greater than 0.", '/sd');
        }

        return [$given['mean'] ?? throw new BadInput('missing', 'The field "mean" is missing.', '/mean'), $sd];
    }

    public function assertPossible(string|float $observed): void
    {
        is_float($observed) || throw new BadInput('type', "The feature \"$this->id\" is a number.");
    }

    public function likelihood(mixed $expectation, string|float $observed): float
    {
        $x = (float) $observed;
        $uniform = $this->uniform($x);
        if (! is_array($expectation)) {
            return $uniform;
        }
        [$mean, $sd] = self::normal($expectation);
        $z = ($x - $mean) / $sd;

        return ($this->reliability * exp(-0.5 * $z * $z)) / ($sd * sqrt(2.0 * M_PI)) +
            (1.0 - $this->reliability) * $uniform;
    }

    public function neutral(array $expectations, array $priors, string|float $observed): float
    {
        if ($this->range !== null) {
            return 1.0 / $this->spread();
        }
        $sum = 0.0;
        foreach ($expectations as $h => $expectation) {
            $sum += $priors[$h] * $this->likelihood($expectation, $observed);
        }

        return $sum;
    }

    /** 20 bins that are equally probable under the current predictive distribution. */
    public function outcomes(array $expectations, array $weights): array
    {
        [$low, $high] = $this->reach($expectations);
        $distinct = self::distinct($expectations, $weights);
        $predictive = function (float $x) use ($distinct): float {
            $sum = 0.0;
            foreach ($distinct as ['expectation' => $expectation, 'weight' => $weight]) {
                $sum += $weight * $this->below($expectation, $x);
            }

            return $sum;
        };
        $edges = [];
        for ($i = 1; $i < self::BINS; $i++) {
            $edges[] = $low = Special::invert($predictive, $i / self::BINS, $low, $high);
        }
        $before = array_fill(0, count($expectations), 0.0);
        $outcomes = [];
        foreach ([...$edges, null] as $edge) {
            $upTo = array_map(fn (mixed $e): float => $edge === null ? 1.0 : $this->below($e, $edge), $expectations);
            $outcomes[] = array_map(static fn (float $a, float $b): float => max(0.0, $b - $a), $before, $upTo);
            $before = $upTo;
        }

        return ['outcomes' => $outcomes, 'binEdges' => $edges];
    }

    /**
     * Between which readings anything is to be expected.
     *
     * @param  list<mixed>  $expectations
     * @return array{float, float}
     */
    private function reach(array $expectations): array
    {
        $ends = $this->range ?? [];
        foreach (array_filter($expectations, is_array(...)) as $expectation) {
            [$mean, $sd] = self::normal($expectation);
            array_push($ends, $mean - 12.0 * $sd, $mean + 12.0 * $sd);
        }

        return $ends === [] ? [0.0, 1.0] : [min($ends), max($ends)];
    }

    /**
     * Look-alikes often expect the same: each expectation is reckoned once with all its weight.
     *
     * @param  list<mixed>  $expectations
     * @param  list<float>  $weights
     * @return array<string, array{expectation: mixed, weight: float}>
     */
    private static function distinct(array $expectations, array $weights): array
    {
        $distinct = [];
        foreach ($expectations as $h => $expectation) {
            if ($weights[$h] > 0.0) {
                $key = is_array($expectation) ? pack('d*', ...self::normal($expectation)) : '';
                $distinct[$key] = [
                    'expectation' => $expectation,
                    'weight' => ($distinct[$key]['weight'] ?? 0.0) + $weights[$h],
                ];
            }
        }

        return $distinct;
    }

    /** Probability of a reading below x. */
    private function below(mixed $expectation, float $x): float
    {
        $uniform = $this->range === null ? 0.0 : min(1.0, max(0.0, ($x - $this->range[0]) / $this->spread()));
        if (! is_array($expectation)) {
            return $uniform;
        }
        [$mean, $sd] = self::normal($expectation);

        return $this->reliability * Special::normalCdf(($x - $mean) / $sd) + (1.0 - $this->reliability) * $uniform;
    }

    private function uniform(float $x): float
    {
        return $this->range !== null && $x >= $this->range[0] && $x <= $this->range[1] ? 1.0 / $this->spread() : 0.0;
    }

    private function spread(): float
    {
        if ($this->range === null) {
            throw new BadInput(
                'missing-range',
                "The feature \"$this->id\" needs a \"range\", because its reliability is below 1 or a hypothesis does "
                    .'not mention it.',
            );
        }

        return $this->range[1] - $this->range[0];
    }

    /**
     * @param  array<mixed>  $expectation
     * @return array{float, float}
     */
    private static function normal(array $expectation): array
    {
        /** @var array{float, float} $expectation */
        return $expectation;
    }
}
