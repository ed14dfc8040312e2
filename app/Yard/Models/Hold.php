<?php

namespace App\Yard\Models;

use App\Kernel\Record;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** A reason why a unit may not go on, and who may lift it. */
final class Hold extends Record
{
    protected $table = 'holds';

    protected $casts = ['placed_at' => 'datetime', 'lifted_at' => 'datetime'];

    public function unit(): BelongsTo
    {
        return $this->belongsTo(Unit::class);
    }
}
