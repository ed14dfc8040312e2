<?php

namespace App\Catalog;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** A variant that fits a vehicle as it is, with source and confidence. */
final class Application extends Model
{
    protected $table = 'applications';

    protected $guarded = [];

    public $timestamps = false;

    public function variant(): BelongsTo
    {
        return $this->belongsTo(Variant::class);
    }

    public function vehicle(): BelongsTo
    {
        return $this->belongsTo(Vehicle::class);
    }
}
