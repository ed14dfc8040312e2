<?php

declare(strict_types=1);

namespace Yard\Core\Work;

/** What a search for the least work found. */
final readonly class Cheapest
{
    /**
     * @param  float  $bound  no way takes fewer hours
     * @param  bool  $optimal  whether the search was finished
     */
    public function __construct(public WorkSet $set, public float $bound, public bool $optimal)
    {
    }
}
