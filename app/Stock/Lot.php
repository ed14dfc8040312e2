<?php

namespace App\Stock;

use App\Catalog\Part;
use App\Shop\Record;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** Pieces of one part from one delivery. */
final class Lot extends Record
{
    protected $table = 'stock_lots';

    public function part(): BelongsTo
    {
        return $this->belongsTo(Part::class);
    }
}
