<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Input;
use Yard\Core\Power\LiningHeat;

/** lining.temperature: the steel of a pack in one shift, and shift after shift at an interval. */
final class LiningTemperature implements Calculator
{
    /** Of a plate to the oil that runs over it, W/(m2 K): common practice, no source. */
    private const TO_OIL = 400.0;

    public function calculate(Input $in): array
    {
        $heat = LiningHeat::read($in);
        $oil = $in->number('oil_degc', min: -50.0, max: 300.0);
        $peak = $heat->peak();
        $out = [
            'peak_degc' => $oil + $peak['rise_k'],
            'peakAt_s' => $peak['at_s'],
            'bulkRise_k' => $heat->bulk(),
            'coolsIn_s' => $heat->cools($in->numberOr('toOil', self::TO_OIL, min: 1.0, max: 1e6)),
        ];
        $limit = $in->numberIf('limit_degc', min: -50.0, max: 1500.0);
        $out += $limit === null ? [] : ['holds' => $out['peak_degc'] <= $limit];

        return $in->has('repeat') ? $out + ['repeated' => self::repeated($in->at('repeat'), $out, $oil)] : $out;
    }

    /**
     * What is left of the heat of the shifts before, cooling between them, below the peak of the next.
     *
     * @param  array{peak_degc: float, bulkRise_k: float, coolsIn_s: float}  $one
     * @return array{last_degc: float, settles_degc: float}
     */
    private static function repeated(Input $in, array $one, float $oil): array
    {
        $kept = exp(-$in->number('every_s', min: 0.1, max: 1e6) / $one['coolsIn_s']);
        $times = $in->integer('times', min: 1, max: 100000);
        $peak = $one['peak_degc'] - $oil;

        return [
            'last_degc' => $oil + $peak + $one['bulkRise_k'] * $kept * (1.0 - $kept ** ($times - 1)) / (1.0 - $kept),
            'settles_degc' => $oil + $peak + $one['bulkRise_k'] * $kept / (1.0 - $kept),
        ];
    }
}
