<?php

namespace App\Yard\Contracts;

/** An amount of money that depends on what happens next, with what it is made of. */
final readonly class MoneyFigure
{
    public function __construct(
        public string $name,
        public float $amount,
        public int $count,
        public string $detail,
        public string $link,
    ) {
    }
}
