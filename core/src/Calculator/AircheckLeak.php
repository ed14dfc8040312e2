<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Hydraulics\AirLeak;
use Yard\Core\Input;

/** aircheck.leak: how large the opening is that a pack, a bore or a case loses its air through. */
final class AircheckLeak implements Calculator
{
    public function calculate(Input $in): array
    {
        $leak = AirLeak::read($in);
        $bleed = 0.0;
        foreach ($in->has('bleed_mm') ? $in->list('bleed_mm') : [] as $hole) {
            $bleed += (M_PI / 4.0) * $hole->asNumber(above: 0.0) ** 2;
        }
        $net = max(0.0, $leak->area - $bleed);
        $diameter = static fn (float $area): float => sqrt((4.0 * $area) / M_PI);

        return [
            'area_mm2' => $leak->area,
            'diameter_mm' => $diameter($leak->area),
            'netArea_mm2' => $net,
            'netDiameter_mm' => $diameter($net),
            'choked' => $leak->choked,
        ];
    }
}
