<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Input;
use Yard\Core\Power\Converter;
use Yard\Core\Power\Engine;
use Yard\Core\Power\Launch;
use Yard\Core\Power\LaunchConditions;
use Yard\Core\Power\VehicleLoad;

/** vehicle.launch: pulling away at full load through a slipping converter. */
final class VehicleLaunch implements Calculator
{
    public function calculate(Input $in): array
    {
        $between = static fn (string $field, float $min, float $max): ?float => $in->has($field)
            ? $in->number($field, min: $min, max: $max)
            : null;
        $launch = new Launch(
            Engine::read($in->at('engine')),
            Converter::read($in->at('converter')),
            VehicleLoad::read($in->at('vehicle')),
            $in->number('ratio', min: 0.001, max: 1e4),
            new LaunchConditions(
                $between('grade_pct', -100.0, 100.0) ?? 0.0,
                $between('fluid_l', 0.001, 1e6),
                $between('efficiency', 0.001, 1.0) ?? 1.0,
                $between('rollingCoefficient', 0.0, 1.0),
                $between('fluidDensity_kg_l', 0.1, 5.0),
                $between('fluidHeat_kj_kgk', 0.1, 10.0),
            ),
        );

        return $launch->report();
    }
}
