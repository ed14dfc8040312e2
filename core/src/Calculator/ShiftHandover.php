<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Drivetrain\ApplyChart;
use Yard\Core\Input;
use Yard\Core\Power\HandOver;

/** shift.handover: up- and downshifts element by element: who comes first, what happens when nobody or both hold. */
final class ShiftHandover implements Calculator
{
    public function calculate(Input $in): array
    {
        $chart = ApplyChart::read($in, 1);
        $numbers = [
            $in->number('inputTorque_nm', above: 0.0),
            $in->number('coastTorque_nm', above: 0.0),
            $in->number('inputSpeed_rpm', above: 0.0),
            $in->number('inputInertia_kgm2', above: 0.0),
            $in->number('shiftTime_s', above: 0.0),
        ];

        return ['shifts' => $in->within(static fn (): array => (new HandOver($chart, ...$numbers))->shifts())];
    }
}
