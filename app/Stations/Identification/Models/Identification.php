<?php

namespace App\Stations\Identification\Models;

use App\Catalog\Models\Variant;
use App\Kernel\Record;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** A decision which variant a core is, with the posterior at that time. */
final class Identification extends Record
{
    protected $table = 'identifications';

    protected $casts = [
        'foreign_parts' => 'array',
        'answers' => 'array',
        'decided_at' => 'datetime',
        'mixed' => 'boolean',
    ];

    public function variant(): BelongsTo
    {
        return $this->belongsTo(Variant::class);
    }
}
