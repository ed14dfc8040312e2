<?php

namespace App\Shipping;

use App\Shop\Customer;
use App\Shop\Record;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** A unit that left the house, with the numbers on its papers. */
final class Shipment extends Record
{
    protected $table = 'shipments';

    protected $casts = ['sheet' => 'array', 'shipped_at' => 'datetime'];

    public function customer(): BelongsTo
    {
        return $this->belongsTo(Customer::class);
    }
}
