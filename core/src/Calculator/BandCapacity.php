<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Hydraulics\BandGrip;
use Yard\Core\Input;

/** band.capacity: torque of a band brake and the pull at its ends. */
final class BandCapacity implements Calculator
{
    public function calculate(Input $in): array
    {
        $grip = new BandGrip(
            $in->number('mu', min: 0.0, max: 2.0),
            $in->number('wrap_deg', min: 0.0, max: 3600.0),
            $in->number('drumDiameter_mm', above: 0.0),
            $in->number('applyForce_n', min: 0.0),
            $in->choice('rotation', ['with', 'against']) === 'with',
        );

        return ['torque_nm' => $grip->torqueNm, 'tightSide_n' => $grip->tight, 'slackSide_n' => $grip->slack];
    }
}
