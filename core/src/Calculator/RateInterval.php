<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Input;
use Yard\Core\Life\FailureRate;

/** rate.interval: a failure rate with its exact interval. */
final class RateInterval implements Calculator
{
    public function calculate(Input $in): array
    {
        $failures = $in->integer('failures', min: 0);
        $confidence = $in->has('confidence')
            ? $in->number('confidence', above: 0.0, below: 1.0)
            : FailureRate::CONFIDENCE;
        if ($in->has('units') === $in->has('exposure')) {
            $given = $in->has('units') ? 'both' : 'neither';
            throw $in->fail(
                'choice',
                "Give either \"units\" (how many were watched) or \"exposure\" (how long or far), not $given.",
            );
        }

        $rate = $in->has('units')
            ? FailureRate::ofUnits($failures, $in->integer('units', min: 1, max: 1_000_000_000), $confidence)
            : FailureRate::ofExposure($failures, $in->number('exposure', above: 0.0), $confidence);

        return [
            'rate' => $rate->rate,
            'lower' => $rate->lower,
            'upper' => $rate->upper,
            'confidence' => $rate->confidence,
            'method' => $rate->method,
        ];
    }
}
