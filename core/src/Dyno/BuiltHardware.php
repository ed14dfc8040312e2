<?php

declare(strict_types=1);

namespace Yard\Core\Dyno;

use Yard\Core\Input;
use Yard\Core\Power\PressureChange;

/**
 * What stands in a unit as it is built: the hardware of its variant, changed by the options that are in.
 *
 * @phpstan-type Power array{capacities: array<string, array<string, mixed>>, accumulators?: array<string,
 *     array<string, mixed>>, spring_kpa: float|int, pressure_kpa: array<string, float|int>|float|int,
 *     lockup?: list<string>|null, ...}
 */
final class BuiltHardware
{
    /**
     * @param  Power  $power  of the variant; pressures by gear, or one for all
     * @param  list<string>  $gears  of the train
     * @param  list<array{capacities?: array<string, array<string, mixed>>, accumulators?: array<string, array<string,
     *     mixed>>, ...}>  $changes  of the options, each as power.margin reads it
     * @return array{capacities: array<string, array<string, mixed>>, accumulators: array<string, array<string, mixed>>,
     *     spring_kpa: float, pressure_kpa: array<string, float>, lockup: bool}
     */
    public static function of(array $power, array $gears, array $changes): array
    {
        $spring = (float) $power['spring_kpa'];
        $full = is_array($power['pressure_kpa'])
            ? array_map(fn (float|int $kpa): float => (float) $kpa, $power['pressure_kpa'])
            : array_fill_keys($gears, (float) $power['pressure_kpa']);
        [$capacities, $accumulators] = [$power['capacities'], $power['accumulators'] ?? []];
        foreach ($changes as $change) {
            $pressure = PressureChange::read(Input::of($change));
            $full = array_map(fn (float $before): float => $pressure->full($before, $spring), $full);
            $spring = $pressure->spring($spring);
            $capacities = array_replace($capacities, $change['capacities'] ?? []);
            $accumulators = array_replace($accumulators, $change['accumulators'] ?? []);
        }

        return [
            'capacities' => $capacities,
            'accumulators' => $accumulators,
            'spring_kpa' => $spring,
            'pressure_kpa' => $full,
            'lockup' => isset($power['lockup']),
        ];
    }
}
