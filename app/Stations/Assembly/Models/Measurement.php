<?php

namespace App\Stations\Assembly\Models;

use App\Kernel\Record;
use App\Shop\Models\Gauge;
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
