<?php

namespace App\Yard\Contracts;

use App\Catalog\Models\Family;

/** How much more often than others each element of a family fails: as shipped, and as this shop has seen it. */
interface ElementWeights
{
    /**
     * @return array{learns: bool, counts: array<string, int>, shipped: array<string, float>,
     *     weights: array<string, float>} counts: units in which the element was the confirmed cause
     */
    public function of(Family $family): array;
}
