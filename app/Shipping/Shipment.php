<?php

namespace App\Shipping;

use App\Shop\Customer;
use App\Shop\KeepsDecodedJson;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** A unit that left the house, with the numbers on its papers. */
final class Shipment extends Model
{
    use KeepsDecodedJson;

    protected $table = 'shipments';

    protected $guarded = [];

    public $timestamps = false;

    protected $casts = ['sheet' => 'array', 'shipped_at' => 'datetime'];

    public function customer(): BelongsTo
    {
        return $this->belongsTo(Customer::class);
    }
}
