<?php

namespace App\Catalog\Models;

use App\Kernel\Record;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** One exact unit variant with the clues expected of it. */
final class Variant extends Record
{
    protected $table = 'variants';

    protected $casts = ['expect' => 'array', 'hardware' => 'array'];

    public function family(): BelongsTo
    {
        return $this->belongsTo(Family::class);
    }
}
