<?php

declare(strict_types=1);

namespace Yard\Core\Hydraulics;

use Yard\Core\Input;

/**
 * A plate pack with its hydraulic piston. Lengths in mm, forces in N. Formulas: Shigley, ch. 16, frictional-contact
 * axial clutches.
 */
final readonly class Clutch
{
    private function __construct(
        public float $mu,
        public int $faces,
        public float $outer,
        public float $inner,
        public bool $uniformWear,
        public float $pistonOuter,
        public float $pistonInner,
        public float $returnForce,
    ) {
    }

    public static function read(Input $in): self
    {
        $outer = $in->number('outerDiameter_mm', above: 0.0);
        $wear = $in->choice('model', ['uniform-wear', 'uniform-pressure']) === 'uniform-wear';
        // Uniform wear has its highest pressure at the inner edge, which needs an edge.
        $inner = $wear
            ? $in->number('innerDiameter_mm', above: 0.0, below: $outer)
            : $in->number('innerDiameter_mm', min: 0.0, below: $outer);
        $pistonOuter = $in->number('pistonOuter_mm', above: 0.0);

        return new self(
            $in->number('mu', min: 0.0, max: 2.0),
            $in->integer('frictionFaces', min: 1, max: 1000),
            $outer,
            $inner,
            $wear,
            $pistonOuter,
            $in->number('pistonInner_mm', min: 0.0, below: $pistonOuter),
            $in->number('returnForce_n', min: 0.0),
        );
    }

    public function normalForce(float $pressureKpa, float $centrifugal = 0.0): float
    {
        $area = (M_PI / 4.0) * ($this->pistonOuter ** 2 - $this->pistonInner ** 2);

        return max(0.0, ($pressureKpa / 1000.0) * $area + $centrifugal - $this->returnForce);
    }

    public function meanRadius(): float
    {
        return $this->uniformWear
            ? ($this->outer + $this->inner) / 4.0
            : ($this->outer ** 3 - $this->inner ** 3) / (3.0 * ($this->outer ** 2 - $this->inner ** 2));
    }

    /** Torque in N.m under a normal force in N. */
    public function torque(float $force): float
    {
        return ($this->mu * $this->faces * $force * $this->meanRadius()) / 1000.0;
    }

    /** Highest lining pressure in kPa: at the inner edge for uniform wear, everywhere for uniform pressure. */
    public function liningPressure(float $force): float
    {
        return 1000.0 *
            ($this->uniformWear
                ? (2.0 * $force) / (M_PI * $this->inner * ($this->outer - $this->inner))
                : (4.0 * $force) / (M_PI * ($this->outer ** 2 - $this->inner ** 2)));
    }
}
