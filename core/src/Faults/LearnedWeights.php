<?php

declare(strict_types=1);

namespace Yard\Core\Faults;

/**
 * How much more often than others an element fails, from what was shipped and what was counted: the shipped weights are
 * worth so many cases (Dirichlet prior with multinomial counts; its posterior mean, Gelman et al., Bayesian Data
 * Analysis, ch. 3). The weights keep their sum, so that elements weigh among each other and not against the rest.
 */
final class LearnedWeights
{
    /**
     * @param  array<string, float>  $shipped  element => weight, one entry for every element
     * @param  array<string, int>  $counts  element => times it was the cause
     * @param  float  $worth  cases the shipped weights stand for, above 0
     * @return array<string, float>
     */
    public static function of(array $shipped, array $counts, float $worth): array
    {
        $sum = array_sum($shipped);
        $cases = array_sum(array_intersect_key($counts, $shipped));
        $out = [];
        foreach ($shipped as $element => $weight) {
            $share = ($sum > 0.0 ? $worth * $weight / $sum : 0.0) + ($counts[$element] ?? 0);
            $out[$element] = $sum * $share / ($worth + $cases);
        }

        return $out;
    }
}
