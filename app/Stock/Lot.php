<?php

namespace App\Stock;

use App\Catalog\Part;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** Pieces of one part from one delivery. */
final class Lot extends Model
{
    protected $table = 'stock_lots';

    protected $guarded = [];

    public $timestamps = false;

    public function part(): BelongsTo
    {
        return $this->belongsTo(Part::class);
    }
}
