<?php

declare(strict_types=1);

namespace Yard\Core\Fit;

use Yard\Core\Decimal;

/** A part that comes in several thicknesses, one of them. */
final readonly class SelectivePart
{
    /**
     * @param  int|null  $stock  pieces on the shelf, shared by all slots; null is as many as wanted
     * @param  float|null  $cost  of a piece
     */
    public function __construct(
        public string $part,
        public Decimal $thickness,
        public ?int $stock = null,
        public ?float $cost = null,
    ) {
    }

    /** @param  float  $thickness  as typed, in the unit of the stack */
    public static function of(string $part, float $thickness, ?int $stock = null, ?float $cost = null): self
    {
        return new self($part, Decimal::ofFloat($thickness), $stock, $cost);
    }
}
