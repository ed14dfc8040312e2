<?php

namespace App\Catalog\Models;

use App\Kernel\Record;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** A variant that fits a vehicle as it is, with source and confidence. */
final class Application extends Record
{
    protected $table = 'applications';

    public function variant(): BelongsTo
    {
        return $this->belongsTo(Variant::class);
    }

    public function vehicle(): BelongsTo
    {
        return $this->belongsTo(Vehicle::class);
    }
}
