<?php

declare(strict_types=1);

namespace Yard\Core;

/**
 * A decimal number as digits x 10^-places, held as whole numbers: 0.030 is 30 x 10^-3 and compares equal to 0.03
 * without binary rounding.
 */
final class Decimal
{
    private function __construct(private readonly int $digits, public readonly int $places)
    {
    }

    public static function ofFloat(float $n): self
    {
        $text = strtolower((string) json_encode($n));
        [$mantissa, $exponent] = array_pad(explode('e', $text, 2), 2, '0');
        [$whole, $fraction] = array_pad(explode('.', $mantissa, 2), 2, '');
        $fraction = rtrim($fraction, '0');
        $places = strlen($fraction) - (int) $exponent;
        $digits = $whole.$fraction;
        if ($places < 0) {
            $digits .= str_repeat('0', -$places);
            $places = 0;
        }
        if (strlen(ltrim($digits, '-0')) > 18 || $places > 18) {
            throw new BadInput(
                'precision',
                "The number $text has more digits than can be added up exactly; round it to what the gauge shows.",
            );
        }

        return new self((int) $digits, $places);
    }

    public function equals(self $other): bool
    {
        return $this->places === $other->places && $this->digits === $other->digits;
    }

    /** Half-way to another number, exactly. */
    public function middle(self $other): self
    {
        $places = max($this->places, $other->places) + 1;

        return self::ofFloat(
            self::unscale(intdiv($this->scaled($places) + $other->scaled($places), 2), $places),
        );
    }

    public function toFloat(): float
    {
        return self::unscale($this->digits, $this->places);
    }

    /** The value as a whole number of 10^-places units. */
    public function scaled(int $places): int
    {
        $value = $this->digits * 10 ** ($places - $this->places);
        if (! is_int($value) || abs($value) > 4_000_000_000_000_000_000) {
            throw new BadInput(
                'precision',
                'The numbers have too many digits to be added up exactly; round them to what the gauge shows.',
            );
        }

        return $value;
    }

    /** The double nearest to value x 10^-places. */
    public static function unscale(int $value, int $places): float
    {
        return $places === 0 ? (float) $value : (float) ($value.'e-'.$places);
    }
}
