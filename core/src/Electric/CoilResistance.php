<?php

declare(strict_types=1);

namespace Yard\Core\Electric;

use Yard\Core\BadInput;

/**
 * Resistance of a copper coil brought to 20 degrees: R20 = R / (1 + alpha (T - 20)), alpha of annealed copper by
 * IEC 60028 (0.00393 per kelvin at 20 degrees). Holds between -40 and 200 degrees.
 */
final class CoilResistance
{
    private const ALPHA = 0.00393;

    private const REFERENCE = 20.0;

    /**
     * @param  float  $ohm  as measured
     * @param  float  $celsius  of the coil when it was measured
     *
     * @throws BadInput when the temperature is none a coil is measured at
     */
    public static function at20(float $ohm, float $celsius, string $path = ''): float
    {
        if ($celsius < -40.0 || $celsius > 200.0) {
            throw new BadInput('out-of-range', 'A coil is measured between -40 and 200 degrees.', $path);
        }

        return $ohm / (1.0 + self::ALPHA * ($celsius - self::REFERENCE));
    }
}
