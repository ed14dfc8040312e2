<?php

declare(strict_types=1);

namespace Yard\Core\Power;

use Yard\Core\BadInput;
use Yard\Core\Hydraulics\Orifice;
use Yard\Core\Input;

/** Charge pressure in the shell pushes on the one opening it has, its hub. Behind a restriction the shell sees less. */
final readonly class ConverterThrust
{
    /** @param  float  $charge  kPa the shell sees */
    private function __construct(public float $charge, public float $force, public bool $isRestricted)
    {
    }

    /**
     * Reads charge_kpa, hubDiameter_mm and restriction.
     *
     * @throws BadInput
     */
    public static function read(Input $in): self
    {
        $pressure = $in->number('charge_kpa', min: 0.0);
        $area = (M_PI / 4.0) * $in->number('hubDiameter_mm', above: 0.0) ** 2;
        $restriction = $in->optional('restriction');
        if ($restriction === null) {
            return new self($pressure, ($pressure * $area) / 1000.0, false);
        }
        $flow = $restriction->number('flow_l_min', min: 0.0);
        $drop = ($flow / 0.06 / Orifice::read($restriction)->conductance()) ** 2;
        if ($drop > $pressure) {
            throw $restriction->at('flow_l_min')->fail(
                'range',
                'So much does not pass the restriction at this charge: it would take '.round($drop, 1).' kPa.',
            );
        }

        return new self($pressure - $drop, (($pressure - $drop) * $area) / 1000.0, true);
    }
}
