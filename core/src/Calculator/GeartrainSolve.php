<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Drivetrain\ApplyChart;
use Yard\Core\Drivetrain\ChartReport;
use Yard\Core\Drivetrain\Losses;
use Yard\Core\Input;

/** geartrain.solve: ratio, member and planet speeds, element torques and released slips of every gear of a chart. */
final class GeartrainSolve implements Calculator
{
    public function calculate(Input $in): array
    {
        $chart = ApplyChart::read($in);

        return ChartReport::of($chart, Losses::read($in, $chart->train));
    }
}
