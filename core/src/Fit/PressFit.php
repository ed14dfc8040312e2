<?php

declare(strict_types=1);

namespace Yard\Core\Fit;

use Yard\Core\BadInput;
use Yard\Core\Input;

/**
 * Two thick cylinders pressed together, plane stress, after Lame (e.g. Shigley, Mechanical Engineering Design, press
 * and shrink fits). Lengths in millimetres, stresses in MPa.
 */
final readonly class PressFit
{
    private function __construct(
        private float $diameter,
        private float $interference,
        private float $length,
        private Cylinder $outer,
        private Cylinder $inner,
        private float $mu,
    ) {
    }

    /** @throws BadInput */
    public static function read(Input $in): self
    {
        $diameter = $in->number('diameter_mm', above: 0.0);
        $outer = Cylinder::read($in->at('outer'), above: $diameter);
        $inner = Cylinder::read($in->at('inner'), below: $diameter);

        return new self(
            $diameter,
            $in->number('interference_um', min: 0.0) / 1000.0,
            $in->number('length_mm', above: 0.0),
            $outer,
            $inner,
            $in->number('mu', min: 0.0, max: 2.0),
        );
    }

    /** Between the parts. */
    public function pressure(): float
    {
        $squeeze =
            ($this->stiffening($this->outer) + $this->outer->nu) / $this->outer->mpa +
            ($this->stiffening($this->inner) - $this->inner->nu) / $this->inner->mpa;

        return $this->interference / ($this->diameter * $squeeze);
    }

    public function insertForce(): float
    {
        return $this->mu * $this->pressure() * M_PI * $this->diameter * $this->length;
    }

    /** In N.m. */
    public function torque(): float
    {
        return ($this->insertForce() * $this->diameter) / 2000.0;
    }

    /** On the diameter, in micrometres; null where the inner part is solid. */
    public function boreClosure(): ?float
    {
        $bore = $this->inner->diameter;
        if ($bore === 0.0) {
            return null;
        }
        $ring = $this->diameter ** 2 - $bore ** 2;

        return (1000.0 * 2.0 * $this->pressure() * $this->diameter ** 2 * $bore) / ($this->inner->mpa * $ring);
    }

    /** At the bore of the outer part. */
    public function hoopOuter(): float
    {
        return $this->pressure() * $this->stiffening($this->outer);
    }

    /** (a2 + b2) / |a2 - b2| of a ring whose one face is the joint. */
    private function stiffening(Cylinder $part): float
    {
        $joint = $this->diameter ** 2;
        $other = $part->diameter ** 2;

        return ($joint + $other) / abs($joint - $other);
    }
}
