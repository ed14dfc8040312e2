<?php

namespace App\Stock\Models;

use App\Catalog\Models\Part;
use App\Kernel\Record;
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
