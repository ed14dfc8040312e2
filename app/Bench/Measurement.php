<?php

namespace App\Bench;

use App\Shop\Gauge;
use App\Shop\Record;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** A measured value with person, time, gauge and window. */
final class Measurement extends Record
{
    protected $table = 'measurements';

    protected $casts = ['inside' => 'boolean', 'measured_at' => 'datetime'];

    public function gauge(): BelongsTo
    {
        return $this->belongsTo(Gauge::class);
    }
}
