<?php

namespace App\Bench;

use App\Shop\Gauge;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** A measured value with person, time, gauge and window. */
final class Measurement extends Model
{
    protected $table = 'measurements';

    protected $guarded = [];

    public $timestamps = false;

    protected $casts = ['inside' => 'boolean', 'measured_at' => 'datetime'];

    public function gauge(): BelongsTo
    {
        return $this->belongsTo(Gauge::class);
    }
}
