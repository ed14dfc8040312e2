<?php

declare(strict_types=1);

namespace Yard\Core\Packages;

use Yard\Core\Power\Capacity;
use Yard\Core\Power\Plan;

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
     * @return array<string, mixed>
     */
    public function of(array $chosen): array
    {
        $result = $this->evaluate($chosen);
        $out = ['gears' => $result['gears'], 'holds' => $result['holds'], 'limit' => $this->plan->limit, 'unknown' => $result['unknown']];
        if ($result['weakest'] !== null) {
            $out['weakest'] = $result['weakest'];
        }

        return $result['largest'] === null ? $out : $out + ['largestInputTorque_nm' => $result['largest']];
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
            $capacities = $this->plan->capacities;
            $factor = 1.0;
            foreach ($active as $option) {
                $capacities = array_replace($capacities, $this->overrides[$option]['capacities']);
                $factor *= $this->overrides[$option]['pressureFactor'];
            }
            $this->known[$key] = $this->plan->evaluate($capacities, array_map(static fn (float $p): float => $p * $factor, $this->plan->pressures));
        }

        return $this->known[$key];
    }
}
