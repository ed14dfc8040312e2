<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Drivetrain\ApplyChart;
use Yard\Core\Drivetrain\ChartReport;
use Yard\Core\Input;

/** geartrain.solve: ratio, member and planet speeds, element torques and released slips of every gear of a chart. */
final class GeartrainSolve implements Calculator
{
    public function calculate(Input $in): array
    {
        return ChartReport::of(ApplyChart::read($in));
    }
}
