<?php

namespace App\Stations\Dispatch\Models;

use App\Kernel\Ledger\AccountedRecord;
use App\Shop\Models\Customer;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * A unit that left the house, with the numbers on its papers.
 *
 * @property int $id
 * @property int $build_id
 * @property int|null $customer_id
 * @property string $carrier
 * @property array<mixed> $sheet
 * @property string $warranty_until
 * @property int $warranty_km
 * @property int $shipped_by
 * @property Carbon $shipped_at
 * @property Customer|null $customer
 */
final class Shipment extends AccountedRecord
{
    protected $table = 'shipments';

    protected $fillable = [
        'build_id',
        'customer_id',
        'carrier',
        'sheet',
        'warranty_until',
        'warranty_km',
        'shipped_by',
        'shipped_at',
    ];

    protected $casts = ['sheet' => 'array', 'shipped_at' => 'datetime'];

    /** @return BelongsTo<Customer, $this> */
    public function customer(): BelongsTo
    {
        return $this->belongsTo(Customer::class);
    }
}
