<?php

namespace App\Yard\Models;

use App\Kernel\Ledger\AccountedRecord;

/**
 * A line of a core's credit; revision 0 as received, 1 after its hard parts were looked at.
 *
 * @property int $id
 * @property int $unit_id
 * @property int $revision
 * @property int $position
 * @property string $kind
 * @property string $label
 * @property string $quantity
 * @property string $unit_price
 * @property string $amount
 */
final class CreditLine extends AccountedRecord
{
    protected $table = 'credit_lines';

    protected $fillable = [
        'unit_id',
        'revision',
        'position',
        'kind',
        'label',
        'quantity',
        'unit_price',
        'amount',
    ];

    /** @return array{kind: string, label: string, quantity: float, unitPrice: float, amount: float} */
    public function shown(): array
    {
        return [
            'kind' => $this->kind,
            'label' => $this->label,
            'quantity' => (float) $this->quantity,
            'unitPrice' => (float) $this->unit_price,
            'amount' => (float) $this->amount,
        ];
    }
}
