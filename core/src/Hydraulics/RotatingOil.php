<?php

declare(strict_types=1);

namespace Yard\Core\Hydraulics;

use Yard\Core\Input;

/**
 * Oil turning as a rigid body with a drum, free surface at the fill radius: dp/dr = rho w^2 r, integrated over the
 * wetted ring of a flat annular piston (rigid-body rotation of a liquid, e.g. White, Fluid Mechanics, chapter on fluid
 * statics).
 */
final readonly class RotatingOil
{
    /** @param  float  $perSpeedSquared  force in N at 1 rad/s */
    private function __construct(public float $perSpeedSquared)
    {
    }

    /** Piston diameters and fill radius in mm, density in kg/m3. Wetted from max(fill radius, inner) to outer. */
    public static function on(float $pistonOuter, float $pistonInner, float $fillRadius, float $density): self
    {
        [$outer, $inner, $fill] = [$pistonOuter / 2000.0, $pistonInner / 2000.0, $fillRadius / 1000.0];
        $from = max($inner, $fill);
        if ($from >= $outer) {
            return new self(0.0);
        }

        return new self(
            M_PI * $density * (($outer ** 4 - $from ** 4) / 4.0 - ($fill ** 2 * ($outer ** 2 - $from ** 2)) / 2.0),
        );
    }

    public static function read(Input $in, float $pistonOuter, float $pistonInner): self
    {
        return self::on(
            $pistonOuter,
            $pistonInner,
            $in->number('fillRadius_mm', min: 0.0),
            $in->number('density', above: 0.0),
        );
    }

    public function force(float $rpm): float
    {
        return $this->perSpeedSquared * (($rpm * M_PI) / 30.0) ** 2;
    }

    /** Speed in rpm at which the oil reaches a force; null where no speed does. */
    public function speedFor(float $force): ?float
    {
        return $force <= 0.0
            ? 0.0
            : ($this->perSpeedSquared > 0.0
                ? (sqrt($force / $this->perSpeedSquared) * 30.0) / M_PI
                : null);
    }

    public function less(self $balance): self
    {
        return new self($this->perSpeedSquared - $balance->perSpeedSquared);
    }
}
