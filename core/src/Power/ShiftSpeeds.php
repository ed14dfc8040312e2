<?php

declare(strict_types=1);

namespace Yard\Core\Power;

/** Speeds of input and output along one piece of a shift, rad/s over s from its start. */
final readonly class ShiftSpeeds
{
    /**
     * @param  float  $ratio  of the new gear
     * @param  array{array{float, float}, array{float, float}}  $rates  of input and output, each a constant and a
     *     factor of the element's torque
     */
    public function __construct(
        private float $input,
        private float $output,
        private float $ratio,
        private array $rates,
        private ShiftPiece $law,
    ) {
    }

    public function input(float $t): float
    {
        [$constant, $factor] = $this->rates[0];

        return $this->input + $constant * $t + $factor * $this->law->impulse($t);
    }

    public function output(float $t): float
    {
        [$constant, $factor] = $this->rates[1];

        return $this->output + $constant * $t + $factor * $this->law->impulse($t);
    }

    /** @return float rad/s2 */
    public function inputRate(float $t): float
    {
        [$constant, $factor] = $this->rates[0];

        return $constant + $factor * $this->law->torque($t);
    }

    /** What the input still has above the new gear. */
    public function slip(float $t): float
    {
        return $this->input($t) - $this->ratio * $this->output($t);
    }

    /** @return float rad/s2 at the start */
    public function slipRate(): float
    {
        [$constant, $factor] = $this->rates[1];

        return $this->inputRate(0.0) - $this->ratio * ($constant + $factor * $this->law->torque(0.0));
    }
}
