<?php

namespace App\Money\Actions;

use App\Kernel\OrderedRows;
use App\Yard\Models\Unit;
use Yard\Core\Credit\CoreCredit;
use Yard\Core\Credit\CreditLine;

/** The lines of a core's credit: those of receiving, or beside them those of the one revision after teardown. */
final class WriteCredit
{
    public static function lines(Unit $unit, CoreCredit $credit, bool $fresh = false): void
    {
        $revision = $unit->credit_revision === null ? 0 : 1;
        OrderedRows::write(
            $unit->creditLines()->where('revision', $revision),
            array_map(
                fn (CreditLine $l) => [
                    'revision' => $revision,
                    'kind' => $l->kind,
                    'label' => $l->label,
                    'quantity' => $l->quantity,
                    'unit_price' => $l->unitCents / 100,
                    'amount' => $l->cents / 100,
                ],
                $credit->lines,
            ),
            $fresh,
        );
    }
}
