<?php

namespace App\Stations\Dyno\Models;

use App\Kernel\Record;
use App\Shop\Models\Person;
use App\Yard\Models\Build;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** One run on the test rig. */
final class Run extends Record
{
    protected $table = 'dyno_runs';

    protected $casts = [
        'program' => 'array',
        'analysis' => 'array',
        'checks' => 'array',
        'queued_at' => 'datetime',
        'ended_at' => 'datetime',
        'verdict_at' => 'datetime',
        'cancel_requested' => 'boolean',
    ];

    public function build(): BelongsTo
    {
        return $this->belongsTo(Build::class);
    }

    public function judge(): BelongsTo
    {
        return $this->belongsTo(Person::class, 'verdict_by');
    }
}
