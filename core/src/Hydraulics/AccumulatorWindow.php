<?php

declare(strict_types=1);

namespace Yard\Core\Hydraulics;

use Yard\Core\Calculator;
use Yard\Core\Input;

/**
 * The pressure window of an accumulator: force of its springs over the piston area at the start and end of the stroke,
 * and the oil it takes up. Several builds are compared with the first one.
 */
final class AccumulatorWindow implements Calculator
{
    public function calculate(Input $in): array
    {
        $builds = array_map(self::build(...), $in->list('builds', 1));
        $changes = [];
        foreach (array_slice($builds, 1) as $build) {
            $changes[] = ['from' => $builds[0]['name'], 'to' => $build['name'], 'start_kpa' => $build['start_kpa'] - $builds[0]['start_kpa'], 'end_kpa' => $build['end_kpa'] - $builds[0]['end_kpa'], 'volume_ml' => $build['volume_ml'] - $builds[0]['volume_ml']];
        }

        return ['builds' => $builds, 'changes' => $changes];
    }

    /** @return array{name: string, area_mm2: float, start_kpa: float, end_kpa: float, volume_ml: float, startForce_n: float, endForce_n: float, curve: list<array{volume_ml: float, pressure_kpa: float}>} */
    private static function build(Input $in): array
    {
        $outer = $in->number('pistonDiameter_mm', above: 0.0);
        $rod = $in->has('rodDiameter_mm') ? $in->number('rodDiameter_mm', min: 0.0, below: $outer) : 0.0;
        $area = M_PI / 4.0 * ($outer ** 2 - $rod ** 2);
        $springs = array_map(Spring::read(...), $in->list('springs'));
        $back = $in->has('backPressure_kpa') ? $in->number('backPressure_kpa', min: 0.0) : 0.0;
        $stroke = $in->number('stroke_mm', min: 0.0);
        $installed = $in->number('installedLength_mm', above: 0.0);
        $solid = max([0.0, ...array_map(static fn (Spring $s): float => $s->solid, $springs)]);
        if ($installed - $stroke < $solid) {
            throw $in->at('stroke_mm')->fail('solid', 'A stroke of '.Input::show($stroke).' mm presses a spring below its solid length of '.Input::show(round($solid, 6)).' mm.');
        }
        $force = static fn (float $length): float => array_sum(array_map(static fn (Spring $s): float => $s->force($length), $springs));
        $pressure = static fn (float $travel): float => $back + $force($installed - $travel) / $area * 1000.0;
        // The curve bends where a shorter inner spring begins to touch.
        $travels = [0.0, $stroke];
        foreach ($springs as $spring) {
            $touch = $installed - $spring->free;
            $touch > 0.0 && $touch < $stroke && $travels[] = $touch;
        }
        sort($travels);
        $curve = array_map(static fn (float $t): array => ['volume_ml' => $area * $t / 1000.0, 'pressure_kpa' => $pressure($t)], array_values(array_unique($travels)));

        return ['name' => $in->has('name') ? $in->name('name') : 'build', 'area_mm2' => $area, 'start_kpa' => $pressure(0.0), 'end_kpa' => $pressure($stroke), 'volume_ml' => $area * $stroke / 1000.0, 'startForce_n' => $force($installed), 'endForce_n' => $force($installed - $stroke), 'curve' => $curve];
    }
}
