<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Hydraulics\Orifice;
use Yard\Core\Input;

/** The flow through an orifice, and through another one at the same pressure drop. */
final class OrificeFlow implements Calculator
{
    public function calculate(Input $in): array
    {
        $drop = $in->number('pressureDrop_kpa', min: 0.0);
        $orifice = Orifice::read($in);
        $flow = self::litresPerMinute($orifice, $drop);
        $other = $in->optional('compare');
        if ($other === null) {
            return ['flow_l_min' => $flow];
        }
        $compared = self::litresPerMinute(Orifice::read($other, $orifice), $drop);

        return ['flow_l_min' => $flow, 'compared_l_min' => $compared] +
            ($flow > 0.0 ? ['ratio' => $compared / $flow] : []);
    }

    private static function litresPerMinute(Orifice $orifice, float $dropKpa): float
    {
        return $orifice->conductance() * sqrt($dropKpa) * 0.06;
    }
}
