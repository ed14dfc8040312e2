<?php

declare(strict_types=1);

namespace Yard\Core\Hydraulics;

use Yard\Core\Calculator;
use Yard\Core\Input;

/** Turbulent flow through a sharp-edged orifice: Q = Cd A sqrt(2 dp / rho) (e.g. White, Fluid Mechanics, obstruction meters). */
final class OrificeFlow implements Calculator
{
    public function calculate(Input $in): array
    {
        $drop = $in->number('pressureDrop_kpa', min: 0.0);
        $density = $in->number('density', above: 0.0);
        $flow = self::flow($in, $drop, $density, null);
        $other = $in->optional('compare');
        if ($other === null) {
            return ['flow_l_min' => $flow];
        }
        $compared = self::flow($other, $drop, $density, $in->number('dischargeCoefficient'));

        return ['flow_l_min' => $flow, 'compared_l_min' => $compared] + ($flow > 0.0 ? ['ratio' => $compared / $flow] : []);
    }

    private static function flow(Input $in, float $dropKpa, float $density, ?float $coefficient): float
    {
        $cd = $coefficient === null || $in->has('dischargeCoefficient') ? $in->number('dischargeCoefficient', above: 0.0, max: 1.0) : $coefficient;
        $area = M_PI / 4.0 * ($in->number('diameter_mm', above: 0.0) / 1000.0) ** 2;

        return $cd * $area * sqrt(2.0 * $dropKpa * 1000.0 / $density) * 60_000.0;
    }
}
