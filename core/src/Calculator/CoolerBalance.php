<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Input;
use Yard\Core\Power\CoolerBalance as Balance;

/** cooler.balance: the heat of a unit on a long grade, where its oil settles, and how long until it is too hot. */
final class CoolerBalance implements Calculator
{
    private const FLUID = 850.0 / 1000.0 * 2000.0;

    private const METAL = 480.0;

    public function calculate(Input $in): array
    {
        $balance = Balance::read($in);
        $ua = $in->number('coolerUa_w_per_k', above: 0.0, max: 1e6);
        $air = $in->number('air_degc', min: -60.0, max: 80.0);
        $steady = $air + $balance->heat() / $ua;
        $limit = $in->number('limit_degc', above: $air, max: 500.0);
        $capacity = $in->number('fluid_l', above: 0.0) * self::FLUID + $in->number('metal_kg', min: 0.0) * self::METAL;
        $start = $in->numberOr('start_degc', $air, min: -60.0, max: 500.0);
        $out = [
            'road_kw' => $balance->road / 1000.0,
            'engine_kw' => $balance->in / 1000.0,
            'gearing_kw' => $balance->gearing / 1000.0,
            'converter_kw' => $balance->converter / 1000.0,
            'heat_kw' => $balance->heat() / 1000.0,
            'steady_degc' => $steady,
            'timeConstant_s' => $capacity / $ua,
            'holds' => $steady <= $limit,
            // The cooler that would just do.
            'neededUa_w_per_k' => $balance->heat() / ($limit - $air),
        ];
        $left = ($steady - $limit) / max(1e-9, $steady - $start);

        return $out + ($out['holds'] ? [] : ['secondsTo' => $start >= $limit ? 0.0 : -$capacity / $ua * log($left)]);
    }
}
