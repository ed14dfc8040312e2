<?php

declare(strict_types=1);

namespace Yard\Core\Power;

use Yard\Core\Input;

/** What an option, a trial or a fault changes in the line pressure. */
final readonly class PressureChange
{
    /**
     * @param  float  $factor  on all pressures
     * @param  float  $springAdd  kPa more of the regulator spring, in every gear at every throttle
     * @param  float  $boostFactor  on what the boost valve adds with the throttle
     */
    private function __construct(private float $factor, private float $springAdd, private float $boostFactor)
    {
    }

    /** Reads pressureFactor, springAdd_kpa and boostFactor; what is not said changes nothing. */
    public static function read(?Input $in): self
    {
        $factor = static fn (string $field): float => $in?->has($field) ? $in->number($field, above: 0.0) : 1.0;

        return new self(
            $factor('pressureFactor'),
            $in?->has('springAdd_kpa') ? $in->number('springAdd_kpa', min: 0.0) : 0.0,
            $factor('boostFactor'),
        );
    }

    /** kPa the spring gives alone, of what it gave before. */
    public function spring(float $before): float
    {
        return ($before + $this->springAdd) * $this->factor;
    }

    /** kPa at full throttle, of what it was, and the spring's share of that. */
    public function full(float $before, float $spring): float
    {
        return max(0.0, ($spring + $this->springAdd + ($before - $spring) * $this->boostFactor) * $this->factor);
    }
}
