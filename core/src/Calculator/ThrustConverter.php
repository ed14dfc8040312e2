<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Hydraulics\Orifice;
use Yard\Core\Input;

/**
 * thrust.converter: charge pressure in the shell pushes on the one opening it has, its hub. Behind a restriction the
 * shell sees less.
 */
final class ThrustConverter implements Calculator
{
    public function calculate(Input $in): array
    {
        $pressure = $in->number('charge_kpa', min: 0.0);
        $area = (M_PI / 4.0) * $in->number('hubDiameter_mm', above: 0.0) ** 2;
        $restriction = $in->optional('restriction');
        if ($restriction === null) {
            return ['force_n' => ($pressure * $area) / 1000.0];
        }
        $flow = $restriction->number('flow_l_min', min: 0.0);
        $drop = ($flow / 0.06 / Orifice::read($restriction)->conductance()) ** 2;
        if ($drop > $pressure) {
            throw $restriction->at('flow_l_min')->fail(
                'range',
                'So much does not pass the restriction at this charge: it would take '.round($drop, 1).' kPa.',
            );
        }

        return ['force_n' => (($pressure - $drop) * $area) / 1000.0, 'pressureBehind_kpa' => $pressure - $drop];
    }
}
