<?php

declare(strict_types=1);

namespace Yard\Core\Power;

/** What stands in a unit, as far as torque goes: what each element can hold, the pressure of each gear, the converter. */
final readonly class Hardware
{
    /**
     * @param  array<string, Capacity>  $capacities
     * @param  array<string, float>  $pressures  gear => kPa
     */
    public function __construct(public array $capacities, public array $pressures, public ?Converter $converter)
    {
    }

    /** @param  array<string, Capacity>  $capacities  in place of the ones here */
    public function with(array $capacities, float $pressureFactor = 1.0, ?Converter $converter = null): self
    {
        return new self(array_replace($this->capacities, $capacities), array_map(static fn (float $p): float => $p * $pressureFactor, $this->pressures), $converter ?? $this->converter);
    }
}
