<?php

namespace App\Stock\Models;

use App\Catalog\Models\Part;
use App\Kernel\Record;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * Pieces of one part from one delivery.
 *
 * @property int $id
 * @property int $part_id
 * @property string $lot
 * @property string $supplier
 * @property int $quantity
 * @property string $place
 * @property string $received_on
 * @property int|null $origin_unit_id  the core it was taken out of
 * @property Part $part
 */
final class Lot extends Record
{
    protected $table = 'stock_lots';

    protected $fillable = [
        'part_id',
        'lot',
        'supplier',
        'quantity',
        'place',
        'received_on',
        'origin_unit_id',
    ];

    /** @return BelongsTo<Part, $this> */
    public function part(): BelongsTo
    {
        return $this->belongsTo(Part::class);
    }
}
