<?php

declare(strict_types=1);

namespace Yard\Core\Dyno;

/**
 * What the test cell must know of a unit that stands on it, in an open format (docs/formats/rig.md).
 *
 * @phpstan-type Accumulator array{pistonDiameter_mm: float, springs: list<array{wire_mm: float, meanDiameter_mm: float,
 *     activeCoils: float, freeLength_mm: float, modulus_gpa: float}>, installedLength_mm: float, stroke_mm: float,
 *     feed: array{diameter_mm: float}}
 */
final class SpecimenFile
{
    private const FORMAT = 'specimen/1';

    /**
     * @param  array<string, mixed>  $train  sets, elements, gears, input, output
     * @param  array{capacities: array<string, mixed>, spring_kpa: float|int, pressure_kpa: array<string, mixed>,
     *     accumulators?: array<string, Accumulator>, lockup?: bool|list<string>}  $power  as built, or as the catalog
     *     has the family
     * @param  array<string, mixed>|null  $control  solenoids and what they make
     * @param  array<string, float>  $travel  element => clearance its piston has to take up, as built, mm
     * @param  array<string, float>  $meant  the same as the specification aims at, mm
     * @param  float  $fluid  what is filled in, litres; 0: nobody says
     * @return array<string, mixed>
     */
    public static function of(
        string $serial,
        string $family,
        array $train,
        array $power,
        ?array $control,
        array $travel = [],
        array $meant = [],
        float $fluid = 0.0,
    ): array {
        return [
            'format' => self::FORMAT,
            'serial' => $serial,
            'family' => $family,
            'train' => $train,
            'capacities' => (object) $power['capacities'],
            'accumulators' => (object) array_map(self::accumulator(...), $power['accumulators'] ?? []),
            'pressure' => ['idle_kpa' => $power['spring_kpa'], 'full_kpa' => $power['pressure_kpa']],
            'lockup' => ($power['lockup'] ?? false) !== false,
            'fluid_l' => $fluid,
            'control' => $control,
            'travel_mm' => (object) $travel,
            'travelMeant_mm' => (object) $meant,
        ];
    }

    /**
     * Volume, the pressures between which it works, and the area of its feed.
     *
     * @param  Accumulator  $a
     * @return array{volume_cm3: float, pressure_kpa: array{float, float}, feed_mm2: float}
     */
    private static function accumulator(array $a): array
    {
        $area = (M_PI / 4.0) * $a['pistonDiameter_mm'] ** 2;
        $rate = $preload = 0.0;
        foreach ($a['springs'] as $spring) {
            // Rate of a helical spring of round wire, N/mm: G d^4 / (8 D^3 n).
            $own = (1000.0 * $spring['modulus_gpa'] * $spring['wire_mm'] ** 4) /
                (8.0 * $spring['meanDiameter_mm'] ** 3 * $spring['activeCoils']);
            $rate += $own;
            $preload += $own * max(0.0, $spring['freeLength_mm'] - $a['installedLength_mm']);
        }

        return [
            'volume_cm3' => ($area * $a['stroke_mm']) / 1000.0,
            'pressure_kpa' => [
                (1000.0 * $preload) / $area,
                (1000.0 * ($preload + $rate * $a['stroke_mm'])) / $area,
            ],
            'feed_mm2' => (M_PI / 4.0) * $a['feed']['diameter_mm'] ** 2,
        ];
    }
}
