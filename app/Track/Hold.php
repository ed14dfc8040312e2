<?php

namespace App\Track;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** A reason why a unit may not go on, and who may lift it. */
final class Hold extends Model
{
    protected $table = 'holds';

    protected $guarded = [];

    public $timestamps = false;

    protected $casts = ['placed_at' => 'datetime', 'lifted_at' => 'datetime'];

    public function unit(): BelongsTo
    {
        return $this->belongsTo(Unit::class);
    }
}
