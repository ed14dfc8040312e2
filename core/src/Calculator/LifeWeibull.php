<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Input;
use Yard\Core\Life\Lives;
use Yard\Core\Life\WeibullFit;

/** life.weibull: shape and scale of a life from failures and units still running. */
final class LifeWeibull implements Calculator
{
    public function calculate(Input $in): array
    {
        $lives = Lives::read($in);
        $confidence = $in->numberOr('confidence', 0.95, above: 0.0, below: 1.0);
        $fit = $in->within(static fn (): WeibullFit => WeibullFit::of($lives));

        return [
            'shape' => $fit->shape,
            'scale' => $fit->scale,
            'logLik' => $fit->logLikelihood,
            'ci' => $fit->interval($confidence),
            'b10' => $fit->quantile(0.1),
            'mean' => $fit->mean(),
            'converged' => $fit->converged,
        ];
    }
}
