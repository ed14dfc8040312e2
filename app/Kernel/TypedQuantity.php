<?php

namespace App\Kernel;

use Yard\Core\BadInput;
use Yard\Core\Quantity\Quantity;
use Yard\Core\Quantity\Unit as MeasureUnit;

/** A value with the unit it was typed in: 0.024 in comes back as 0.024 in. */
final class TypedQuantity
{
    private function __construct(
        public readonly float $value,
        public readonly string $unit,
        public readonly float $si,
        public readonly string $typed,
    ) {
    }

    /** @throws Refusal at the field when the text is no quantity of this kind */
    public static function parse(string $text, string $kind, string $default, string $pointer): self
    {
        try {
            $read = Quantity::parse($text, $kind, $default);
        } catch (BadInput $e) {
            throw Refusal::at($pointer, $e->getMessage());
        }

        return new self($read->value, $read->unit->symbol, $read->si(), trim($text));
    }

    /** The same value, with other words for what was typed. */
    public function written(string $typed): self
    {
        return new self($this->value, $this->unit, $this->si, $typed);
    }

    public function in(string $unit): float
    {
        return round(MeasureUnit::of($this->unit)->convert($this->value, MeasureUnit::of($unit)), 9);
    }
}
