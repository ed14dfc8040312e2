<?php

declare(strict_types=1);

namespace Yard\Core\Evidence;

/** Something that may be so, with how likely it is before anything is seen and what it lets one expect. */
final readonly class Hypothesis
{
    /**
     * @param  float  $prior  in any unit; the model divides by the sum
     * @param  array<string, array<string, float>>  $expect  feature => value => weight, or mean and sd
     */
    public function __construct(public string $id, public float $prior = 1.0, public array $expect = [])
    {
    }
}
