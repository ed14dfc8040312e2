<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Hydraulics\RotatingOil;
use Yard\Core\Input;

/** Force of the oil left in a turning cylinder, and whether the return springs hold the piston off against it. */
final class PistonCentrifugal implements Calculator
{
    public function calculate(Input $in): array
    {
        $outer = $in->number('pistonOuter_mm', above: 0.0);
        $oil = RotatingOil::read($in, $outer, $in->number('pistonInner_mm', min: 0.0, below: $outer));
        $return = $in->number('returnForce_n', min: 0.0);
        $balance = $in->optional('balance');
        if ($balance !== null) {
            // A dam on the other side holds oil that pushes back; its oil has the density of the apply side.
            $dam = $balance->number('outer_mm', above: 0.0);
            $oil = $oil->less(
                RotatingOil::on(
                    $dam,
                    $balance->number('inner_mm', min: 0.0, below: $dam),
                    $balance->number('fillRadius_mm', min: 0.0),
                    $in->number('density', above: 0.0),
                ),
            );
        }
        $force = $oil->force($in->number('speed_rpm'));
        $speed = $oil->speedFor($return);

        return ['force_n' => $force, 'selfApplies' => $force > $return] +
            ($speed === null ? [] : ['selfApplySpeed_rpm' => $speed]);
    }
}
