<?php

declare(strict_types=1);

namespace Yard\Core\Power;

use Yard\Core\Input;

/**
 * How hot the steel under a lining gets in a shift, and in one shift after another.
 *
 * The heat of a shift falls on both faces of a steel plate with a flux that falls evenly to nothing; its middle is a
 * plane of symmetry. With L half the plate, the surface answers a steady flux q by q R(t), R = t/(rho c L) + (L/k) [1/3
 * - 2/pi^2 sum exp(-n^2 pi^2 a t/L^2)/n^2] (Carslaw and Jaeger, Conduction of Heat in Solids, slab with constant flux),
 * and the falling one by superposition. Between shifts the plates lose their heat to the oil as one lump.
 */
final readonly class LiningHeat
{
    /** Terms of the series: the rest is below a ten-thousandth of the first from t = L^2 / (1000 a) on. */
    private const TERMS = 120;

    private const STEPS = 400;

    private function __construct(
        private float $flux,
        private float $seconds,
        private float $half,
        private float $conductivity,
        private float $heatCapacity,
    ) {
    }

    /** Reads heat_j, area_mm2, shift_s, plate_mm, intoSteel, conductivity, density and specificHeat. */
    public static function read(Input $in): self
    {
        $area = $in->number('area_mm2', above: 0.0, max: 1e8) / 1e6;
        $seconds = $in->number('shift_s', min: 0.001, max: 60.0);
        $heat = $in->number('heat_j', min: 0.0, max: 1e8) * $in->numberOr('intoSteel', 1.0, above: 0.0, max: 1.0);

        return new self(
            2.0 * $heat / ($area * $seconds),
            $seconds,
            $in->number('plate_mm', min: 0.1, max: 100.0) / 2000.0,
            $in->numberOr('conductivity', 46.0, min: 0.1, max: 1000.0),
            $in->numberOr('density', 7850.0, min: 100.0, max: 30000.0) *
                $in->numberOr('specificHeat', 480.0, min: 50.0, max: 10000.0),
        );
    }

    /** @return array{rise_k: float, at_s: float} the hottest the surface gets, above where it began */
    public function peak(): array
    {
        $best = 0.0;
        for ($n = 1; $n <= self::STEPS; $n++) {
            $t = $this->seconds * $n / self::STEPS;
            $best = $this->surface($t) > $this->surface($best) ? $t : $best;
        }
        $width = $this->seconds / self::STEPS;
        [$low, $high] = [max(0.0, $best - $width), min($this->seconds, $best + $width)];
        while ($high - $low > 1e-9 * $this->seconds) {
            [$a, $b] = [$low + ($high - $low) / 3.0, $high - ($high - $low) / 3.0];
            $this->surface($a) < $this->surface($b) ? ($low = $a) : ($high = $b);
        }

        return ['rise_k' => $this->surface($low), 'at_s' => $low];
    }

    /** K of the whole plate when all of the heat is in it. */
    public function bulk(): float
    {
        return $this->flux * $this->seconds / 2.0 / ($this->heatCapacity * $this->half);
    }

    /** Seconds in which the plates lose all but 1/e of what they are hotter than the oil. */
    public function cools(float $toOil): float
    {
        return $this->heatCapacity * $this->half / $toOil;
    }

    /** K of the surface above where it began, t seconds into the shift. */
    public function surface(float $t): float
    {
        $diffusivity = $this->conductivity / $this->heatCapacity;
        $rate = M_PI ** 2 * $diffusivity / $this->half ** 2;
        $steady = $ramp = 0.0;
        for ($n = 1; $n <= self::TERMS; $n++) {
            $left = exp(-$n * $n * $rate * $t);
            $steady += $left / $n ** 2;
            $ramp += (1.0 - $left) / $n ** 4;
        }
        $series = 2.0 / M_PI ** 2;
        $constant = $t / ($this->heatCapacity * $this->half) +
            $this->half / $this->conductivity * (1.0 / 3.0 - $series * $steady);
        $falling = $t ** 2 / (2.0 * $this->heatCapacity * $this->half) +
            $this->half / $this->conductivity * ($t / 3.0 - $series * $ramp / $rate);

        return $t <= 0.0 ? 0.0 : $this->flux * ($constant - $falling / $this->seconds);
    }
}
