<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Credit\CoreCredit;
use Yard\Core\Credit\CreditLine;
use Yard\Core\Credit\Grade;
use Yard\Core\Credit\PricedPart;
use Yard\Core\Input;

/** receive.credit: what a core earns, line by line. */
final class ReceiveCredit implements Calculator
{
    public function calculate(Input $in): array
    {
        $credit = CoreCredit::of(
            $in->number('coreCharge', min: 0.0, max: 1e9),
            $in->number('scrapValue', min: 0.0, max: 1e9),
            Grade::from($in->choice('grade', Grade::letters())),
            self::parts($in->optional('missingParts')),
            self::parts($in->optional('failedHardParts')),
            $in->number('repairHours', min: 0.0, max: 10000.0),
            $in->number('rate', min: 0.0, max: 1e6),
        );

        return [
            'lines' => array_map(static fn (CreditLine $l): array => $l->toArray(), $credit->lines),
            'subtotal' => $credit->subtotalCents / 100,
            'floorApplied' => $credit->atFloor(),
            'credit' => $credit->amount(),
        ];
    }

    /** @return list<PricedPart> */
    private static function parts(?Input $in): array
    {
        return array_map(
            static fn (Input $part): PricedPart => new PricedPart(
                $part->name('part'),
                $part->number('price', min: 0.0, max: 1e9),
                $part->has('count') ? $part->integer('count', min: 1, max: 1000) : 1,
            ),
            $in?->asList() ?? [],
        );
    }
}
