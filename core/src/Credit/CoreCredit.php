<?php

declare(strict_types=1);

namespace Yard\Core\Credit;

use Yard\Core\Calculator;
use Yard\Core\Input;

/**
 * Core credit line by line: core charge, less missing parts, less hard parts failed at receipt, less repair hours x
 * rate, floored at scrap value; a grade-X core earns nothing. Money is added in whole hundredths, each line rounded
 * half up.
 */
final class CoreCredit implements Calculator
{
    public const GRADES = ['A', 'B', 'C', 'D', 'X'];

    public function calculate(Input $in): array
    {
        $charge = self::cents($in->number('coreCharge', min: 0.0, max: 1e9));
        $scrap = self::cents($in->number('scrapValue', min: 0.0, max: 1e9));
        $grade = $in->choice('grade', self::GRADES);
        $lines = [self::line('core-charge', 'Core charge', 1.0, $charge, $charge)];
        $deductions = [
            'missingParts' => ['missing-part', 'Missing: '],
            'failedHardParts' => ['failed-part', 'Failed: '],
        ];
        foreach ($deductions as $field => [$kind, $label]) {
            foreach ($in->optional($field)?->asList() ?? [] as $part) {
                $price = self::cents($part->number('price', min: 0.0, max: 1e9));
                $count = $part->has('count') ? $part->integer('count', min: 1, max: 1000) : 1;
                $lines[] = self::line($kind, $label.$part->name('part'), (float) $count, $price, -$count * $price);
            }
        }
        $hours = $in->number('repairHours', min: 0.0, max: 10000.0);
        $rate = $in->number('rate', min: 0.0, max: 1e6);
        if ($hours > 0.0) {
            $lines[] = self::line('repair', 'Repair hours', $hours, self::cents($rate), -self::cents($hours * $rate));
        }
        $subtotal = array_sum(array_column($lines, 'cents'));
        $credit = $subtotal;
        if ($grade === 'X') {
            $credit = 0;
            $lines[] = self::line('refused', 'Grade X: no credit', 1.0, -$subtotal, -$subtotal);
        } elseif ($subtotal < $scrap) {
            $credit = $scrap;
            $lines[] = self::line(
                'scrap-floor',
                'Raised to scrap value',
                1.0,
                $scrap - $subtotal,
                $scrap - $subtotal,
            );
        }

        return [
            'lines' => array_map(static fn (array $l): array => array_diff_key($l, ['cents' => 0]), $lines),
            'subtotal' => $subtotal / 100,
            'floorApplied' => $grade !== 'X' && $subtotal < $scrap,
            'credit' => $credit / 100,
        ];
    }

    /**
     * @return array{kind: string, label: string, quantity: float, unitPrice: float|int, amount: float|int, cents: int}
     */
    private static function line(string $kind, string $label, float $quantity, int $unit, int $amount): array
    {
        return [
            'kind' => $kind,
            'label' => $label,
            'quantity' => $quantity,
            'unitPrice' => $unit / 100,
            'amount' => $amount / 100,
            'cents' => $amount,
        ];
    }

    private static function cents(float $money): int
    {
        return (int) round($money * 100.0);
    }
}
