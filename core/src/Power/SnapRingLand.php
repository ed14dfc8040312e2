<?php

declare(strict_types=1);

namespace Yard\Core\Power;

use Yard\Core\Input;

/**
 * The land behind a snap ring takes what a pack presses with: a short cantilever all round, 6 F a / (pi D t^2) at its
 * root (elementary bending, e.g. Shigley), times the notch of the groove.
 */
final readonly class SnapRingLand
{
    /** @param  float  $perNewton  MPa at the root of the land for each N of the pack */
    private function __construct(private float $perNewton, public float $limit)
    {
    }

    /** Reads diameter_mm of the groove, land_mm, arm_mm from ring to root, notch (1) and limit_mpa in fatigue. */
    public static function read(Input $in): self
    {
        $width = M_PI * $in->number('diameter_mm', above: 0.0);
        $bending = 6.0 * $in->number('arm_mm', above: 0.0) / ($width * $in->number('land_mm', above: 0.0) ** 2);

        $notch = $in->numberOr('notch', 1.0, min: 1.0, max: 10.0);

        return new self($bending * $notch, $in->number('limit_mpa', above: 0.0));
    }

    /** MPa under a force in N. */
    public function stress(float $force): float
    {
        return $this->perNewton * $force;
    }
}
