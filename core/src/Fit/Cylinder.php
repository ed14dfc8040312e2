<?php

declare(strict_types=1);

namespace Yard\Core\Fit;

use Yard\Core\BadInput;
use Yard\Core\Input;

/** One part of a press fit: its other face and its material. */
final readonly class Cylinder
{
    /** @param  float  $mpa  modulus of elasticity */
    private function __construct(public float $diameter, public float $mpa, public float $nu)
    {
    }

    /**
     * @param  float|null  $above  an outer part reaches beyond the joint
     * @param  float|null  $below  an inner part stays inside it; a bore of 0 is solid
     *
     * @throws BadInput
     */
    public static function read(Input $in, ?float $above = null, ?float $below = null): self
    {
        return new self(
            $above === null
                ? $in->number('diameter_mm', min: 0.0, below: $below)
                : $in->number('diameter_mm', above: $above),
            1000.0 * $in->number('e_gpa', above: 0.0),
            $in->number('nu', min: 0.0, max: 0.5),
        );
    }
}
