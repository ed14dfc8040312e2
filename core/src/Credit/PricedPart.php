<?php

declare(strict_types=1);

namespace Yard\Core\Credit;

/** A part a core lacks or has ruined, with what a new one costs. */
final readonly class PricedPart
{
    public function __construct(public string $name, public float $price, public int $count = 1)
    {
    }
}
