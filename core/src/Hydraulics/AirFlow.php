<?php

declare(strict_types=1);

namespace Yard\Core\Hydraulics;

/**
 * Air as an ideal gas through a sharp opening: choked while the pressure behind is at most (2/(k+1))^(k/(k-1)) of the
 * one before, subsonic above (e.g. White, Fluid Mechanics, compressible flow). Pressures absolute, in kPa.
 */
final class AirFlow
{
    public const K = 1.4;

    /** J/(kg K) */
    public const R = 287.05;

    /** Pressure ratio below which the flow is choked. */
    public static function critical(): float
    {
        return (2.0 / (self::K + 1.0)) ** (self::K / (self::K - 1.0));
    }

    /** Mass flow, divided by coefficient, area and p / sqrt(T): 0.0404 where it is choked. */
    public static function factor(float $before, float $behind): float
    {
        $ratio = max($behind / $before, self::critical());
        $k = self::K;

        return sqrt(
            (2.0 * $k / (($k - 1.0) * self::R)) * max(0.0, $ratio ** (2.0 / $k) - $ratio ** (($k + 1.0) / $k)),
        );
    }
}
