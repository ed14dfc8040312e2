<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Hydraulics\Clutch;
use Yard\Core\Hydraulics\RotatingOil;
use Yard\Core\Input;

/**
 * Torque a plate pack transmits: mu x faces x normal force x mean radius; the oil's centrifugal head counts when given.
 */
final class ClutchCapacity implements Calculator
{
    public function calculate(Input $in): array
    {
        $clutch = Clutch::read($in);
        $pressure = $in->number('pressure_kpa', min: 0.0);
        $oil = $in->optional('centrifugal');
        $centrifugal =
            $oil === null
                ? 0.0
                : RotatingOil::read($oil, $clutch->pistonOuter, $clutch->pistonInner)->force(
                    $oil->number('speed_rpm'),
                );
        $force = $clutch->normalForce($pressure, $centrifugal);

        return [
            'normalForce_n' => $force,
            'torque_nm' => $clutch->torque($force),
            'meanRadius_mm' => $clutch->meanRadius(),
            'liningPressure_kpa' => $clutch->liningPressure($force),
        ] + ($oil === null ? [] : ['centrifugal_n' => $centrifugal]);
    }
}
