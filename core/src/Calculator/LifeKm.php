<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Input;
use Yard\Core\Life\Lives;
use Yard\Core\Life\SurvivalCurve;

/** life.km: the share still in service over time, with its bounds. */
final class LifeKm implements Calculator
{
    public function calculate(Input $in): array
    {
        $interval = $in->has('interval') ? $in->choice('interval', ['log', 'log-log', 'plain']) : 'log';
        /** @var 'log'|'log-log'|'plain' $interval */
        $confidence = $in->numberOr('confidence', 0.95, above: 0.0, below: 1.0);
        $curve = SurvivalCurve::of(Lives::read($in), $interval, $confidence);
        $median = $curve->median();
        $at = $in->optional('at')?->asList() ?? [];

        return ['curve' => $curve->curve(), 'restrictedMean' => $curve->restrictedMean()] +
            ($median === null ? [] : ['median' => $median]) +
            ($at === [] ? [] : ['at' => array_map(fn (Input $t): array => $curve->at($t->asNumber(min: 0.0)), $at)]);
    }
}
