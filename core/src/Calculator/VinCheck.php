<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Input;
use Yard\Core\Vin\Vin;

/** vin.check: what a vehicle identification number says and what is wrong with it. */
final class VinCheck implements Calculator
{
    public function calculate(Input $in): array
    {
        $vin = Vin::read($in->string('vin'), ! $in->has('lightVehicle') || $in->bool('lightVehicle'));
        $out = [
            'valid' => $vin->valid(),
            'normalised' => $vin->normalised,
            'problems' => $vin->problems,
            'modelYears' => $vin->modelYears,
            'warnings' => $vin->warnings,
        ];
        if ($vin->foundDigit === null) {
            return $out;
        }

        return $out + [
            'wmi' => substr($vin->normalised, 0, 3),
            'vds' => substr($vin->normalised, 3, 6),
            'vis' => substr($vin->normalised, 9),
            'checkDigit' => ['found' => $vin->foundDigit] +
                ($vin->expectedDigit === null ? [] : ['expected' => $vin->expectedDigit]),
        ];
    }
}
