<?php

declare(strict_types=1);

namespace Yard\Core\Credit;

/**
 * Core credit line by line: core charge, less missing parts, less hard parts failed at receipt, less repair hours x
 * rate, floored at scrap value; a grade-X core earns nothing. Money is added in whole hundredths, each line rounded
 * half up.
 */
final readonly class CoreCredit
{
    /** @param  list<CreditLine>  $lines */
    private function __construct(public array $lines, public int $subtotalCents, public int $cents)
    {
    }

    /**
     * @param  float  $charge  core charge, money
     * @param  float  $scrap  what the scrap yard pays, money
     * @param  list<PricedPart>  $missing
     * @param  list<PricedPart>  $failed  hard parts found ruined at receipt
     */
    public static function of(
        float $charge,
        float $scrap,
        Grade $grade,
        array $missing,
        array $failed,
        float $repairHours,
        float $rate,
    ): self {
        $lines = [
            self::whole('core-charge', 'Core charge', self::cents($charge)),
            ...array_map(static fn (PricedPart $p) => self::deduction('missing-part', 'Missing: ', $p), $missing),
            ...array_map(static fn (PricedPart $p) => self::deduction('failed-part', 'Failed: ', $p), $failed),
        ];
        if ($repairHours > 0.0) {
            $cost = self::cents($repairHours * $rate);
            $lines[] = new CreditLine('repair', 'Repair hours', $repairHours, self::cents($rate), -$cost);
        }
        $subtotal = array_sum(array_map(static fn (CreditLine $l): int => $l->cents, $lines));
        $floor = self::cents($scrap);
        if ($grade === Grade::X) {
            return new self([...$lines, self::whole('refused', 'Grade X: no credit', -$subtotal)], $subtotal, 0);
        }
        if ($subtotal < $floor) {
            $raise = self::whole('scrap-floor', 'Raised to scrap value', $floor - $subtotal);

            return new self([...$lines, $raise], $subtotal, $floor);
        }

        return new self($lines, $subtotal, $subtotal);
    }

    public function amount(): float
    {
        return $this->cents / 100;
    }

    public function atFloor(): bool
    {
        return $this->linesOf('scrap-floor') !== [];
    }

    /** @return list<CreditLine> */
    public function linesOf(string $kind): array
    {
        return array_values(array_filter($this->lines, static fn (CreditLine $l): bool => $l->kind === $kind));
    }

    private static function whole(string $kind, string $label, int $cents): CreditLine
    {
        return new CreditLine($kind, $label, 1.0, $cents, $cents);
    }

    private static function deduction(string $kind, string $label, PricedPart $part): CreditLine
    {
        $price = self::cents($part->price);

        return new CreditLine($kind, $label.$part->name, (float) $part->count, $price, -$part->count * $price);
    }

    private static function cents(float $money): int
    {
        return (int) round($money * 100.0);
    }
}
