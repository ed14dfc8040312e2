<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Input;
use Yard\Core\Power\ConverterThrust;

/** thrust.converter: what the charge presses on the crankshaft, as it is or behind a restriction. */
final class ThrustConverter implements Calculator
{
    public function calculate(Input $in): array
    {
        $thrust = ConverterThrust::read($in);

        return ['force_n' => $thrust->force] +
            ($thrust->isRestricted ? ['pressureBehind_kpa' => $thrust->charge] : []);
    }
}
