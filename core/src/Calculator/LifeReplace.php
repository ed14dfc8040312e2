<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Input;
use Yard\Core\Life\AgeReplacement;

/** life.replace: the age at which a part is best renewed before it fails, and whether that pays at all. */
final class LifeReplace implements Calculator
{
    public function calculate(Input $in): array
    {
        $policy = new AgeReplacement(
            $in->number('shape', above: 0.0, max: 100.0),
            $in->number('scale', above: 0.0),
            $in->number('plannedCost', above: 0.0),
            $in->number('failedCost', above: 0.0),
        );
        $age = $policy->age();
        $waiting = $policy->costRate(null);

        return [
            'pays' => $age !== null,
            'costRate' => $policy->costRate($age),
            'waitingCostRate' => $waiting,
        ] + ($age === null ? [] : [
            'age' => $age,
            'saves' => 1.0 - $policy->costRate($age) / $waiting,
            'failedBefore' => $policy->failedBy($age),
        ]);
    }
}
