<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Input;

/** Wrench setting with an adapter at an angle to the wrench: T L / (L + E cos phi); 0 degrees is straight out. */
final class TorqueAdapter implements Calculator
{
    public function calculate(Input $in): array
    {
        $wanted = $in->number('wanted_nm', above: 0.0);
        $wrench = $in->number('wrenchLength_mm', above: 0.0);
        $adapter = $in->number('adapterLength_mm', min: 0.0);
        $angle = $in->number('angle_deg', min: -180.0, max: 180.0);
        $arm = $wrench + $adapter * (abs($angle) === 90.0 ? 0.0 : cos(deg2rad($angle)));
        if ($arm <= 1e-9 * $wrench) {
            throw $in
                ->at('adapterLength_mm')
                ->fail('range', 'Folded back this far, the adapter leaves no lever arm at the fastener.');
        }

        return ['setting_nm' => ($wanted * $wrench) / $arm];
    }
}
