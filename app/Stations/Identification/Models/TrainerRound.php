<?php

namespace App\Stations\Identification\Models;

use App\Catalog\Models\Family;
use App\Kernel\Record;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** One past core dealt to a trainee. */
final class TrainerRound extends Record
{
    protected $table = 'trainer_rounds';

    protected $casts = [
        'asked' => 'array',
        'right_answer' => 'boolean',
        'effort' => 'float',
        'started_at' => 'datetime',
        'ended_at' => 'datetime',
    ];

    public function identification(): BelongsTo
    {
        return $this->belongsTo(Identification::class);
    }

    public function family(): BelongsTo
    {
        return $this->belongsTo(Family::class);
    }
}
