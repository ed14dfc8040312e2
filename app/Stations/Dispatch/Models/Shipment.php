<?php

namespace App\Stations\Dispatch\Models;

use App\Kernel\Record;
use App\Shop\Models\Customer;
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
