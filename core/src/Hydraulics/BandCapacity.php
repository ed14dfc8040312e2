<?php

declare(strict_types=1);

namespace Yard\Core\Hydraulics;

use Yard\Core\Calculator;
use Yard\Core\Input;

/** Torque of a band brake by the capstan equation (Eytelwein; Shigley, ch. 16, band-type clutches and brakes). */
final class BandCapacity implements Calculator
{
    public function calculate(Input $in): array
    {
        [$torque, $tight, $slack] = self::of(
            $in->number('mu', min: 0.0, max: 2.0),
            $in->number('wrap_deg', min: 0.0, max: 3600.0),
            $in->number('drumDiameter_mm', above: 0.0),
            $in->number('applyForce_n', min: 0.0),
            $in->choice('rotation', ['with', 'against']) === 'with',
        );

        return ['torque_nm' => $torque, 'tightSide_n' => $tight, 'slackSide_n' => $slack];
    }

    /**
     * @param  bool  $with the drum drags the band from its applied end towards the anchor: the apply force is the slack
     *     side
     * @return array{float, float, float} torque in N.m, tight side and slack side in N
     */
    public static function of(float $mu, float $wrapDeg, float $drumMm, float $applyForce, bool $with): array
    {
        $grip = exp($mu * deg2rad($wrapDeg));
        [$tight, $slack] = $with ? [$applyForce * $grip, $applyForce] : [$applyForce, $applyForce / $grip];

        return [(($tight - $slack) * $drumMm) / 2000.0, $tight, $slack];
    }
}
