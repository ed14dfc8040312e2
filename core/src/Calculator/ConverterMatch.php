<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Input;
use Yard\Core\Power\Converter;
use Yard\Core\Power\Engine;
use Yard\Core\Power\StallWindow;

/** A converter behind an engine: stall speed, torque at the turbine, heat, and whether the stall lies in a window. */
final class ConverterMatch implements Calculator
{
    public function calculate(Input $in): array
    {
        $engine = Engine::read($in->at('engine'));
        $converter = Converter::read($in->at('converter'));
        $stall = $converter->behind($engine, 0.0);
        $highest = $converter->highestTurbineTorque($engine);
        $out = [
            'stall_rpm' => $stall['engine_rpm'],
            'stallEngineTorque_nm' => $stall['engineTorque_nm'],
            'stallTurbineTorque_nm' => $stall['turbineTorque_nm'],
            'stallHeat_kw' => $stall['heat_kw'],
            'highestTurbineTorque_nm' => $highest,
            'torqueRatioOfPeak' => $highest / $engine->peak(),
            'beyondCurve' => $engine->lastSpeed() > 0.0 && $stall['engine_rpm'] > $engine->lastSpeed(),
            'points' => array_map(
                static fn (array $p): array => $converter->behind($engine, $p[0]),
                $converter->points,
            ),
        ];
        $window = StallWindow::read($in->optional('window'));

        return $window === null
            ? $out
            : $out + [
                'window' => [
                    'fits' => $window->fits($stall['engine_rpm']),
                    'message' => $window->says($stall['engine_rpm']),
                ],
            ];
    }
}
