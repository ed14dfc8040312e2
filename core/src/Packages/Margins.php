<?php

declare(strict_types=1);

namespace Yard\Core\Packages;

use Yard\Core\Power\Capacity;
use Yard\Core\Power\Plan;
use Yard\Core\Power\PowerMargin;

/** The torque margins of a choice of options; remembered by the options that change a capacity. */
final class Margins
{
    /** @var array<string, array{gears: list<array<string, mixed>>, weakest: array{gear: string, element: string, margin: float, demand_nm: float, capacity_nm: float}|null, largest: ?float, holds: bool, unknown: list<array{gear: string, element: string}>}> */
    private array $known = [];

    /** @param  array<string, array{capacities: array<string, Capacity>, pressureFactor: float}>  $overrides  option => what it changes */
    public function __construct(private readonly Plan $plan, private readonly array $overrides)
    {
    }

    public function concerns(string $option): bool
    {
        return isset($this->overrides[$option]);
    }

    /** @param  list<string>  $chosen */
    public function hold(array $chosen): bool
    {
        return $this->evaluate($chosen)['holds'];
    }

    /**
     * @param  list<string>  $chosen
     * @return array<string, mixed> as power.margin reports it
     */
    public function of(array $chosen): array
    {
        return PowerMargin::report($this->plan, ...$this->effective($chosen));
    }

    /**
     * @param  list<string>  $chosen
     * @return array{gears: list<array<string, mixed>>, weakest: array{gear: string, element: string, margin: float, demand_nm: float, capacity_nm: float}|null, largest: ?float, holds: bool, unknown: list<array{gear: string, element: string}>}
     */
    public function evaluate(array $chosen): array
    {
        $active = array_values(array_filter($chosen, $this->concerns(...)));
        $key = implode("\0", $active);
        if (! isset($this->known[$key])) {
            $this->known[$key] = $this->plan->evaluate(...$this->effective($active));
        }

        return $this->known[$key];
    }

    /**
     * @param  list<string>  $chosen
     * @return array{array<string, Capacity>, array<string, float>} capacities and pressures with these options in
     */
    private function effective(array $chosen): array
    {
        $capacities = $this->plan->capacities;
        $factor = 1.0;
        foreach (array_filter($chosen, $this->concerns(...)) as $option) {
            $capacities = array_replace($capacities, $this->overrides[$option]['capacities']);
            $factor *= $this->overrides[$option]['pressureFactor'];
        }

        return [$capacities, array_map(static fn (float $p): float => $p * $factor, $this->plan->pressures)];
    }
}
