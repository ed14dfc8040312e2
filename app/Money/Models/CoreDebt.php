<?php

namespace App\Money\Models;

use App\Kernel\Record;

/** A core a customer owes for an exchange unit, charged until it comes back. */
final class CoreDebt extends Record
{
    protected $table = 'core_debts';

    protected $casts = ['charged_on' => 'date:Y-m-d', 'due_on' => 'date:Y-m-d', 'settled_at' => 'datetime'];
}
