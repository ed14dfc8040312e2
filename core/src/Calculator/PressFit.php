<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Fit\PressFit as Fit;
use Yard\Core\Input;

/** press.fit: pressure, force and closure of a bushing or seal pressed home. */
final class PressFit implements Calculator
{
    public function calculate(Input $in): array
    {
        $fit = Fit::read($in);
        $closure = $fit->boreClosure();

        return [
            'pressure_mpa' => $fit->pressure(),
            'insertForce_n' => $fit->insertForce(),
            'torque_nm' => $fit->torque(),
        ] + ($closure === null ? [] : ['boreClosure_um' => $closure]) + ['hoopOuter_mpa' => $fit->hoopOuter()];
    }
}
