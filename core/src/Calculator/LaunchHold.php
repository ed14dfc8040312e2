<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Input;
use Yard\Core\Power\LaunchHold as Hold;

/** launch.hold: how long a converter may be held before something is too hot, and how long it must rest. */
final class LaunchHold implements Calculator
{
    public function calculate(Input $in): array
    {
        return Hold::read($in)->report($in);
    }
}
