<?php

namespace App\Receiving;

use Illuminate\Database\Eloquent\Model;

/** A core a customer owes for an exchange unit, charged until it comes back. */
final class CoreDebt extends Model
{
    protected $table = 'core_debts';

    protected $guarded = [];

    public $timestamps = false;

    protected $casts = ['charged_on' => 'date:Y-m-d', 'due_on' => 'date:Y-m-d', 'settled_at' => 'datetime'];
}
