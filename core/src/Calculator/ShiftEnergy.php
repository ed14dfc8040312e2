<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Drivetrain\ApplyChart;
use Yard\Core\Input;
use Yard\Core\Power\ShiftSetting;
use Yard\Core\Power\Upshifts;

/** shift.energy: heat, torque and speed drop of every upshift of a chart. */
final class ShiftEnergy implements Calculator
{
    public function calculate(Input $in): array
    {
        $chart = ApplyChart::read($in, 1);
        $areas = [];
        foreach ($in->optional('faces')?->asMap() ?? [] as $id => $area) {
            isset($chart->train->elements[$id]) ||
                throw $area->fail('unknown-element', "The element \"$id\" is not in the list of elements.");
            $areas[$id] = $area->asNumber(above: 0.0);
        }
        $shifts = new Upshifts(
            $chart,
            $in->number('inputTorque_nm', min: 0.0),
            $in->number('inputSpeed_rpm', above: 0.0),
            ShiftSetting::read($in),
            $areas,
        );

        return $shifts->report();
    }
}
