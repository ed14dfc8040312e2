<?php

declare(strict_types=1);

namespace Yard\Core\Hydraulics;

use Yard\Core\Input;

/**
 * Turbulent flow through a sharp-edged orifice: Q = Cd A sqrt(2 dp / rho) (e.g. White, Fluid Mechanics, obstruction
 * meters).
 */
final readonly class Orifice
{
    private function __construct(private float $diameter, private float $coefficient, private float $density)
    {
    }

    /**
     * Reads {"diameter_mm", "dischargeCoefficient", "density"}; what is given for another orifice stands in where a
     * field is missing.
     */
    public static function read(Input $in, ?self $like = null): self
    {
        return new self(
            $in->number('diameter_mm', above: 0.0),
            $like !== null && ! $in->has('dischargeCoefficient')
                ? $like->coefficient
                : $in->number('dischargeCoefficient', above: 0.0, max: 1.0),
            $like !== null && ! $in->has('density') ? $like->density : $in->number('density', above: 0.0),
        );
    }

    /** Flow in mL/s for each square root of a kPa across it. */
    public function conductance(): float
    {
        return (($this->coefficient * M_PI) / 4.0) * $this->diameter ** 2 * sqrt(2000.0 / $this->density);
    }
}
