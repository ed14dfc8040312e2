<?php

declare(strict_types=1);

namespace Yard\Core\Power;

use Yard\Core\BadInput;
use Yard\Core\Input;

/** A round shaft twisted: tau = 16 T D / (pi (D4 - d4)) (e.g. Shigley, torsion). Millimetres, N.m, MPa. */
final readonly class Torsion
{
    private function __construct(private float $outer, private float $inner, private float $torque, private float $kt)
    {
    }

    /** @throws BadInput */
    public static function read(Input $in): self
    {
        $outer = $in->number('outer_mm', above: 0.0);

        return new self(
            $outer,
            $in->numberOr('inner_mm', 0.0, min: 0.0, below: $outer),
            $in->number('torque_nm', min: 0.0),
            $in->numberOr('kt', 1.0, min: 1.0),
        );
    }

    /** At the surface, with the notch. */
    public function stress(): float
    {
        return (1000.0 * $this->torque * $this->kt) / $this->modulus();
    }

    /** In degrees for each metre; a notch does not soften the shaft. */
    public function twist(float $shearModulusGpa): float
    {
        $polar = ($this->modulus() * $this->outer) / 2.0;

        return rad2deg((1e6 * $this->torque) / (1000.0 * $shearModulusGpa * $polar));
    }

    /** In N.m. */
    public function torqueAt(float $shearYield): float
    {
        return ($shearYield * $this->modulus()) / (1000.0 * $this->kt);
    }

    /** Polar section modulus in mm3. */
    private function modulus(): float
    {
        return (M_PI * ($this->outer ** 4 - $this->inner ** 4)) / (16.0 * $this->outer);
    }
}
