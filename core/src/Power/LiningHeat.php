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
        private ?SlipFriction $friction = null,
    ) {
    }

    /** Reads heat_j, area_mm2, shift_s, plate_mm, intoSteel, conductivity, density, specificHeat and friction. */
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
            SlipFriction::read($in),
        );
    }

    /** @return array{rise_k: float, at_s: float} the hottest the surface gets, above where it began */
    public function peak(): array
    {
        if ($this->friction !== null) {
            return $this->shaped($this->friction->course(self::STEPS));
        }
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

    /**
     * Any course of heat as steps on top of each other, each with the answer of the plate to a step (Duhamel).
     *
     * @param  list<float>  $course  of equal parts of the shift, 1 on average
     * @return array{rise_k: float, at_s: float}
     */
    private function shaped(array $course): array
    {
        [$parts, $mean] = [count($course), $this->flux / 2.0];
        $answer = [];
        for ($n = 1; $n <= $parts; $n++) {
            $answer[$n] = $this->constant($this->seconds * $n / $parts);
        }
        $peak = ['rise_k' => 0.0, 'at_s' => 0.0];
        for ($n = 1; $n <= $parts; $n++) {
            $rise = $before = 0.0;
            for ($i = 0; $i < $n; $i++) {
                $rise += $mean * ($course[$i] - $before) * $answer[$n - $i];
                $before = $course[$i];
            }
            $rise > $peak['rise_k'] && ($peak = ['rise_k' => $rise, 'at_s' => $this->seconds * $n / $parts]);
        }

        return $peak;
    }

    /** K of the surface above where it began, t seconds into a flux of 1 W/m2. */
    private function constant(float $t): float
    {
        $rate = M_PI ** 2 * $this->conductivity / $this->heatCapacity / $this->half ** 2;
        $steady = 0.0;
        for ($n = 1; $n <= self::TERMS && ($left = exp(-$n * $n * $rate * $t)) > 1e-18; $n++) {
            $steady += $left / $n ** 2;
        }

        return $t / ($this->heatCapacity * $this->half) +
            $this->half / $this->conductivity * (1.0 / 3.0 - 2.0 / M_PI ** 2 * $steady);
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
        $rate = M_PI ** 2 * $this->conductivity / $this->heatCapacity / $this->half ** 2;
        $ramp = 0.0;
        for ($n = 1; $n <= self::TERMS; $n++) {
            $ramp += (1.0 - exp(-$n * $n * $rate * $t)) / $n ** 4;
        }
        $falling = $t ** 2 / (2.0 * $this->heatCapacity * $this->half) +
            $this->half / $this->conductivity * ($t / 3.0 - 2.0 / M_PI ** 2 * $ramp / $rate);

        return $t <= 0.0 ? 0.0 : $this->flux * ($this->constant($t) - $falling / $this->seconds);
    }
}
