<?php

declare(strict_types=1);

namespace Yard\Core\Power;

use Yard\Core\Hydraulics\Accumulator;

/**
 * What stands in a unit, as far as torque goes: what each element can hold, the pressure of each gear, the converter.
 */
final readonly class Hardware
{
    /**
     * @param  array<string, Capacity>  $capacities
     * @param  array<string, Accumulator>  $accumulators  beside an element
     * @param  array<string, float>  $pressures  gear => kPa at full throttle
     * @param  float  $spring  kPa the regulator spring gives alone, before any boost
     */
    public function __construct(
        public array $capacities,
        public array $accumulators,
        public array $pressures,
        public float $spring,
        public ?Converter $converter,
    ) {
    }

    /** Line pressure in kPa: the spring's share stays, the rest is boost and comes with the throttle. */
    public function pressure(string $gear, float $boost): float
    {
        return $this->spring + ($this->pressures[$gear] - $this->spring) * $boost;
    }

    public function with(HardwareChange $change): self
    {
        return new self(
            array_replace($this->capacities, $change->capacities),
            array_replace($this->accumulators, $change->accumulators),
            array_map(fn (float $full): float => $change->pressure->full($full, $this->spring), $this->pressures),
            $change->pressure->spring($this->spring),
            $change->converter ?? $this->converter,
        );
    }
}
