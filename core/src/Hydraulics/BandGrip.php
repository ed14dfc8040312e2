<?php

declare(strict_types=1);

namespace Yard\Core\Hydraulics;

/** Torque of a band brake by the capstan equation (Eytelwein; Shigley, ch. 16, band-type clutches and brakes). */
final readonly class BandGrip
{
    /** N at the end that is pulled hardest. */
    public float $tight;

    public float $slack;

    public float $torqueNm;

    /**
     * @param  bool  $with the drum drags the band from its applied end towards the anchor: the apply force is the slack
     *     side
     */
    public function __construct(float $mu, float $wrapDeg, float $drumMm, float $applyForce, bool $with)
    {
        $grip = exp($mu * deg2rad($wrapDeg));
        $this->tight = $with ? $applyForce * $grip : $applyForce;
        $this->slack = $with ? $applyForce : $applyForce / $grip;
        $this->torqueNm = (($this->tight - $this->slack) * $drumMm) / 2000.0;
    }
}
