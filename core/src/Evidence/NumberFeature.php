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

    private readonly float $tolerance;

    /** @var array{float, float}|null */
    private readonly ?array $range;

    private readonly string $path;

    public function __construct(string $id, float $reliability, float $effort, Input $in)
    {
        parent::__construct($id, $reliability, $effort);
        $this->path = $in->path;
        $this->tolerance = $in->has('tolerance') ? $in->number('tolerance', min: 0.0) : 0.0;
        $range = null;
        if ($in->has('range')) {
            $ends = array_map(static fn (Input $e): float => $e->asNumber(), $in->list('range'));
            if (count($ends) !== 2 || $ends[0] >= $ends[1]) {
                throw $in->at('range')->fail('range', 'The range is two numbers, the smaller first.');
            }
            $range = [$ends[0], $ends[1]];
        }
        $this->range = $range;
        if ($reliability < 1.0) {
            $this->spread();
        }
    }

    /** @return array{float, float}|null mean and standard deviation */
    public function expectation(?Input $in): ?array
    {
        if ($in === null) {
            $this->spread();

            return null;
        }
        $mean = $in->number('mean');
        $sd = sqrt($in->number('sd', min: 0.0) ** 2 + $this->tolerance ** 2 / 3.0);
        if ($sd <= 0.0) {
            throw $in->at('sd')->fail('range', "\"$this->id\" needs an sd or a tolerance greater than 0.");
        }

        return [$mean, $sd];
    }

    public function observation(Input $in): float
    {
        return $in->asNumber();
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
        $lows = $this->range === null ? [] : [$this->range[0]];
        $highs = $this->range === null ? [] : [$this->range[1]];
        foreach ($expectations as $expectation) {
            if (is_array($expectation)) {
                [$mean, $sd] = self::normal($expectation);
                [$lows[], $highs[]] = [$mean - 12.0 * $sd, $mean + 12.0 * $sd];
            }
        }
        [$low, $high] = $lows === [] || $highs === [] ? [0.0, 1.0] : [min($lows), max($highs)];
        // Look-alikes often expect the same: each expectation is reckoned once with all its weight.
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
                $this->path,
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
