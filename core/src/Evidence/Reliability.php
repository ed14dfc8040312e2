<?php

declare(strict_types=1);

namespace Yard\Core\Evidence;

use Yard\Core\BadInput;

/**
 * How often an observation of a feature tells the truth, from confirmed cases. Each case was either read right (its
 * value follows the confirmed hypothesis' own expectation) or at random over the values; which of the two is not known,
 * so the share is found by expectation maximisation (Dempster, Laird & Rubin, J. R. Stat. Soc. B 39, 1977) with a Beta
 * prior worth "weight" cases at the pack's reliability.
 */
final readonly class Reliability
{
    private const STEPS = 1000;

    private const CLOSE = 1e-12;

    /** A feature that never told the truth would make evidence impossible; it keeps a trace of weight instead. */
    private const LEAST = 1e-6;

    private function __construct(public float $share, public int $cases, public int $iterations)
    {
    }

    /**
     * @param  float  $start  the pack's reliability
     * @param  list<array{float, int}>  $cases  the expected probability of the value seen, how many values there are
     *
     * @throws BadInput without any case or weight
     */
    public static function learn(float $start, float $weight, array $cases): self
    {
        $n = count($cases);
        if ($weight + $n <= 0.0) {
            throw new BadInput('too-few', 'Without a case the prior needs a weight greater than 0.', '/cases');
        }
        $r = $start;
        for ($step = 1; $step <= self::STEPS; $step++) {
            $right = 0.0;
            foreach ($cases as [$expected, $values]) {
                $total = $r * $expected + (1.0 - $r) / $values;
                $right += $total > 0.0 ? ($r * $expected) / $total : 0.0;
            }
            $next = ($weight * $start + $right) / ($weight + $n);
            $done = abs($next - $r) < self::CLOSE;
            $r = $next;
            if ($done) {
                break;
            }
        }

        return new self(max($r, self::LEAST), $n, min($step, self::STEPS));
    }
}
