<?php

declare(strict_types=1);

namespace Yard\Core\Evidence;

use Yard\Core\Calculator;
use Yard\Core\Input;

/**
 * How often an observation of a feature tells the truth, from confirmed cases. Each case was either read right (its
 * value follows the confirmed hypothesis' own expectation) or at random over the values; which of the two is not known,
 * so the share is found by expectation maximisation (Dempster, Laird & Rubin, J. R. Stat. Soc. B 39, 1977) with a Beta
 * prior worth "weight" cases at the pack's reliability.
 */
final class LearnReliability implements Calculator
{
    private const STEPS = 1000;

    private const CLOSE = 1e-12;

    public function calculate(Input $in): array
    {
        $prior = $in->at('prior');
        $start = $prior->number('reliability', max: 1.0, above: 0.0);
        $weight = $prior->number('weight', min: 0.0);
        $cases = [];
        foreach ($in->list('cases') as $case) {
            $cases[] = [$case->number('expected', min: 0.0, max: 1.0), 1.0 / $case->integer('values', 2)];
        }
        $n = count($cases);
        if ($weight + $n <= 0.0) {
            throw $in->at('cases')->fail('too-few', 'Without a case the prior needs a weight greater than 0.');
        }
        $r = $start;
        for ($step = 1; $step <= self::STEPS; $step++) {
            $right = 0.0;
            foreach ($cases as [$expected, $random]) {
                $total = $r * $expected + (1.0 - $r) * $random;
                $right += $total > 0.0 ? ($r * $expected) / $total : 0.0;
            }
            $next = ($weight * $start + $right) / ($weight + $n);
            $done = abs($next - $r) < self::CLOSE;
            $r = $next;
            if ($done) {
                break;
            }
        }

        // A feature that never told the truth would make evidence impossible; it keeps a trace of weight instead.
        return ['reliability' => max($r, 1e-6), 'cases' => $n, 'iterations' => min($step, self::STEPS)];
    }
}
