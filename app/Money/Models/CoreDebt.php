<?php

namespace App\Money\Models;

use App\Kernel\Ledger\AccountedRecord;
use Illuminate\Support\Carbon;

/**
 * A core a customer owes for an exchange unit, charged until it comes back.
 *
 * @property int $id
 * @property int $customer_id
 * @property int $build_id
 * @property int $family_id
 * @property string $core_charge
 * @property Carbon $charged_on
 * @property Carbon $due_on
 * @property int|null $settled_by_unit_id
 * @property Carbon|null $settled_at
 */
final class CoreDebt extends AccountedRecord
{
    protected $table = 'core_debts';

    protected $fillable = [
        'customer_id',
        'build_id',
        'family_id',
        'core_charge',
        'charged_on',
        'due_on',
        'settled_by_unit_id',
        'settled_at',
    ];

    protected $casts = ['charged_on' => 'date:Y-m-d', 'due_on' => 'date:Y-m-d', 'settled_at' => 'datetime'];
}
