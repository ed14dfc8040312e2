<?php

declare(strict_types=1);

namespace Yard\Core\Life;

use Yard\Core\BadInput;
use Yard\Core\Maths\Special;

/**
 * A Weibull life fitted to failures and units still running by maximum likelihood: the shape is the root of its profile
 * equation (rising, so there is one), intervals from the observed information of ln scale and ln shape (W. Nelson,
 * Applied Life Data Analysis, 1982, from memory).
 */
final readonly class WeibullFit
{
    private function __construct(
        public float $shape,
        public float $scale,
        public float $logLikelihood,
        public float $shapeError,
        public float $scaleError,
        public bool $converged,
    ) {
    }

    /** @throws BadInput where the likelihood has no highest point */
    public static function of(Lives $lives): self
    {
        self::mustBeEstimable($lives);
        $longest = $lives->longest();
        $logs = array_map(static fn (float $t): float => log($t / $longest), $lives->times);
        $failures = $lives->failures();
        $meanLog = array_sum(array_intersect_key($logs, array_filter($lives->failed))) / $failures;
        [$shape, $converged] = self::shape($logs, $meanLog);
        $powers = array_map(static fn (float $x): float => exp($shape * $x), $logs);
        $logScale = log(array_sum($powers) / $failures) / $shape;
        $z = array_map(static fn (float $x): float => $shape * ($x - $logScale), $logs);
        $weight = array_map(exp(...), $z);
        $products = static fn (int $power): float => array_sum(
            array_map(static fn (float $w, float $x): float => $w * $x ** $power, $weight, $z),
        );
        // Observed information of (ln scale, ln shape); ln shape is minus the log of survreg's scale.
        $information = [$shape ** 2 * $products(0), $shape * $products(1), $failures + $products(2)];
        $determinant = $information[0] * $information[2] - $information[1] ** 2;

        return new self(
            $shape,
            $longest * exp($logScale),
            $failures * (log($shape) - $shape * ($logScale - $meanLog) - $meanLog - log($longest)) - array_sum($weight),
            sqrt($information[0] / $determinant),
            sqrt($information[2] / $determinant),
            $converged,
        );
    }

    private static function mustBeEstimable(Lives $lives): void
    {
        foreach ($lives->times as $i => $time) {
            if ($time <= 0.0) {
                throw new BadInput(
                    'range',
                    'A unit dead on arrival has no life to fit; count it as a proportion of its own.',
                    "/times/$i",
                );
            }
        }
        if ($lives->failures() === 0) {
            throw new BadInput('not-estimable', 'Nothing has failed yet: a life cannot be fitted.', '/events');
        }
        $longest = $lives->longest();
        foreach ($lives->times as $i => $time) {
            if ($lives->failed[$i] && $time < $longest) {
                return;
            }
        }
        throw new BadInput(
            'not-estimable',
            'Every failure is at the longest time: the shape would be without bound.',
            '/times',
        );
    }

    /**
     * @param  list<float>  $logs  of times over the longest one
     * @return array{float, bool}
     */
    private static function shape(array $logs, float $meanLog): array
    {
        $equation = static function (float $shape) use ($logs, $meanLog): float {
            $sum = $weighted = 0.0;
            foreach ($logs as $x) {
                $power = exp($shape * $x);
                $sum += $power;
                $weighted += $power * $x;
            }

            return $weighted / $sum - 1.0 / $shape - $meanLog;
        };
        [$low, $high] = [1.0, 1.0];
        while ($equation($low) > 0.0 && $low > 1e-12) {
            $low /= 2.0;
        }
        while ($equation($high) < 0.0 && $high < 1e12) {
            $high *= 2.0;
        }
        for ($n = 0; $n < 200 && $high - $low > 1e-15 * $high; $n++) {
            $middle = ($low + $high) / 2.0;
            $equation($middle) > 0.0 ? ($high = $middle) : ($low = $middle);
        }

        return [($low + $high) / 2.0, $high - $low <= 1e-12 * $high && $high < 1e12];
    }

    /** @return array{shape: array{float, float}, scale: array{float, float}} */
    public function interval(float $confidence): array
    {
        $z = Special::invert(Special::normalCdf(...), (1.0 + $confidence) / 2.0, 0.0, 9.0);
        $around = static fn (float $value, float $error): array => [
            $value * exp(-$z * $error),
            $value * exp($z * $error),
        ];

        return [
            'shape' => $around($this->shape, $this->shapeError),
            'scale' => $around($this->scale, $this->scaleError),
        ];
    }

    /** The time by which a share has failed. */
    public function quantile(float $share): float
    {
        return $this->scale * (-log1p(-$share)) ** (1.0 / $this->shape);
    }

    public function mean(): float
    {
        return $this->scale * exp(Special::lnGamma(1.0 + 1.0 / $this->shape));
    }
}
