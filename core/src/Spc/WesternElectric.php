<?php

declare(strict_types=1);

namespace Yard\Core\Spc;

/**
 * Patterns that chance alone seldom makes (Western Electric, Statistical Quality Control Handbook, 1956): 1 one point
 * beyond three sigma; 2 two of three beyond two on one side; 3 four of five beyond one on one side; 4 eight on one
 * side.
 */
final class WesternElectric
{
    /** Rule: beyond how many sigma, how many of how many. */
    private const RULES = [1 => [3.0, 1, 1], 2 => [2.0, 2, 3], 3 => [1.0, 4, 5], 4 => [0.0, 8, 8]];

    /**
     * @param  list<float>  $z  distances from the centre in sigma
     * @return list<array{rule: int, index: int}> each point that completes a pattern and lies in its zone, from 1
     */
    public static function signals(array $z): array
    {
        $signals = [];
        foreach (array_keys($z) as $i) {
            foreach (self::RULES as $rule => [$beyond, $least, $of]) {
                $side = $z[$i] <=> 0.0;
                $window = array_slice($z, max(0, $i - $of + 1), min($of, $i + 1));
                $there = count(array_filter($window, static fn (float $v): bool => $v * $side > $beyond));
                if ($side !== 0 && $beyond < $z[$i] * $side && $there >= $least) {
                    $signals[] = ['rule' => $rule, 'index' => $i + 1];
                }
            }
        }

        return $signals;
    }
}
