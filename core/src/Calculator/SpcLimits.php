<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Input;
use Yard\Core\Spc\ControlChart;

/** spc.limits: what a process does by itself, and the points that say something happened. */
final class SpcLimits implements Calculator
{
    public function calculate(Input $in): array
    {
        $chart = ControlChart::read($in);
        $constants = $chart->constants();
        [$centre, $reach, $range] = [$chart->centre(), 3.0 * $chart->sigmaOfPoint(), $chart->meanRange()];
        $upper = $constants->upperRange() * $range;
        $outside = array_keys(array_filter($chart->ranges, static fn (float $r): bool => $r > $upper));

        return [
            'centre' => $centre,
            'sigma' => $chart->sigma(),
            'lower' => $centre - $reach,
            'upper' => $centre + $reach,
            'range' => ['centre' => $range, 'lower' => $constants->lowerRange() * $range, 'upper' => $upper],
            'points' => $chart->points,
            'ranges' => $chart->ranges,
            'signals' => $chart->signals(),
            'rangesOutside' => array_map(static fn (int $i): int => $i + 1, $outside),
            'constants' => [
                'd2' => $constants->d2,
                'd3' => $constants->d3,
                'A2' => $constants->a2(),
                'D3' => $constants->lowerRange(),
                'D4' => $constants->upperRange(),
            ],
        ];
    }
}
