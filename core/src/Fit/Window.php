<?php

declare(strict_types=1);

namespace Yard\Core\Fit;

use Yard\Core\BadInput;
use Yard\Core\Decimal;

/** Where a clearance must lie, and where in it the shop aims; the middle unless it says otherwise. */
final readonly class Window
{
    public function __construct(public Decimal $min, public Decimal $max, public ?Decimal $target = null)
    {
    }

    public static function of(float $min, float $max, ?float $target = null): self
    {
        return new self(
            Decimal::ofFloat($min),
            Decimal::ofFloat($max),
            $target === null ? null : Decimal::ofFloat($target),
        );
    }

    public function aim(): Decimal
    {
        return $this->target ?? $this->min->middle($this->max);
    }

    /** @return list<Decimal> */
    public function numbers(): array
    {
        return [$this->min, $this->max, ...$this->target === null ? [] : [$this->target]];
    }

    /**
     * @return array{int, int, int} lowest, highest, aim in whole 10^-places, places one more than any number has
     *
     * @throws BadInput at /window or /target
     */
    public function scaled(int $places): array
    {
        [$low, $high] = [$this->min->scaled($places), $this->max->scaled($places)];
        if ($low > $high) {
            throw new BadInput(
                'window',
                'The window ends before it begins: min must not be greater than max.',
                '/window',
            );
        }
        $aim = $this->target?->scaled($places) ?? intdiv($low + $high, 2);
        if ($aim < $low || $aim > $high) {
            throw new BadInput('window', 'The target lies outside the window.', '/target');
        }

        return [$low, $high, $aim];
    }
}
