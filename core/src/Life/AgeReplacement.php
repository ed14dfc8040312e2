<?php

declare(strict_types=1);

namespace Yard\Core\Life;

use Yard\Core\Maths\Special;

/**
 * Replacing a part at an age or when it fails, whichever comes first: the age at which the cost a unit of time is least
 * (Barlow & Proschan, Mathematical Theory of Reliability, 1965, from memory). Failures by a Weibull life.
 */
final readonly class AgeReplacement
{
    public function __construct(
        private float $shape,
        private float $scale,
        private float $planned,
        private float $failed,
    ) {
    }

    /** The best age; null where waiting for the failure costs least: no wear, or a failure that costs no more. */
    public function age(): ?float
    {
        if ($this->shape <= 1.0 || $this->failed <= $this->planned) {
            return null;
        }
        $goal = $this->planned / ($this->failed - $this->planned);
        $reached = fn (float $logAge): float => $this->hazard(exp($logAge)) * $this->survived(exp($logAge)) -
            $this->failedBy(exp($logAge));
        $low = $high = log($this->scale);
        while ($reached($low) > $goal && $low > -600.0) {
            $low -= 1.0;
        }
        while ($reached($high) < $goal && $high < 600.0) {
            $high += 1.0;
        }
        for ($n = 0; $n < 200 && $high - $low > 1e-15; $n++) {
            $middle = ($low + $high) / 2.0;
            $reached($middle) < $goal ? ($low = $middle) : ($high = $middle);
        }

        return exp(($low + $high) / 2.0);
    }

    /** Cost a unit of time when replaced at an age; null: only when it fails. */
    public function costRate(?float $age): float
    {
        if ($age === null) {
            return $this->failed / ($this->scale * exp(Special::lnGamma(1.0 + 1.0 / $this->shape)));
        }
        $lost = $this->failedBy($age);

        return ($this->planned * (1.0 - $lost) + $this->failed * $lost) / $this->survived($age);
    }

    public function failedBy(float $age): float
    {
        return -expm1(-(($age / $this->scale) ** $this->shape));
    }

    private function hazard(float $age): float
    {
        return ($this->shape / $this->scale) * ($age / $this->scale) ** ($this->shape - 1.0);
    }

    /** Mean time in service up to an age: (scale/shape) gamma(1/shape, (age/scale)^shape). */
    private function survived(float $age): float
    {
        $a = 1.0 / $this->shape;
        $x = ($age / $this->scale) ** $this->shape;

        return $this->scale * $a * exp(Special::lnGamma($a)) * Special::gammaP($a, $x);
    }
}
