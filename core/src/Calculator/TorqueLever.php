<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Input;
use Yard\Core\Quantity\Unit;

/** Pull on a scale hooked square to a spanner: F = T / arm. */
final class TorqueLever implements Calculator
{
    public function calculate(Input $in): array
    {
        $force = $in->number('torque_nm', min: 0.0) / $in->number('arm_m', above: 0.0);
        $newton = Unit::of('N');

        return [
            'force_n' => $force,
            'force_kgf' => $newton->convert($force, Unit::of('kgf')),
            'force_lbf' => $newton->convert($force, Unit::of('lbf')),
        ];
    }
}
