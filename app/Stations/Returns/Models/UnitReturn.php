<?php

namespace App\Stations\Returns\Models;

use App\Kernel\Record;
use App\Shop\Models\Person;
use App\Yard\Models\Build;
use App\Yard\Models\Unit;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** A unit that came back under its serial. */
final class UnitReturn extends Record
{
    protected $table = 'returns';

    protected $casts = [
        'codes' => 'array',
        'observed' => 'array',
        'ranking' => 'array',
        'weights' => 'array',
        'cost_split' => 'array',
        'opened_at' => 'datetime',
        'verdict_at' => 'datetime',
    ];

    public function judge(): BelongsTo
    {
        return $this->belongsTo(Person::class, 'verdict_by');
    }

    public function build(): BelongsTo
    {
        return $this->belongsTo(Build::class);
    }

    public function unit(): BelongsTo
    {
        return $this->belongsTo(Unit::class);
    }
}
