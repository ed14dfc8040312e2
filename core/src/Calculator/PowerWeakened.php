<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Input;
use Yard\Core\Power\TrainDuty;
use Yard\Core\Power\WeakenedUnit;
use Yard\Core\Power\Weakening;

/** power.weakened: what wear, a leak or a wrong pressure does to each gear and shift, beside the sound unit. */
final class PowerWeakened implements Calculator
{
    public function calculate(Input $in): array
    {
        $plan = TrainDuty::read($in);

        return (new WeakenedUnit($plan, Weakening::read($in, $plan)))->toArray();
    }
}
