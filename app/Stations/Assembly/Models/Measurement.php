<?php

namespace App\Stations\Assembly\Models;

use App\Kernel\Ledger\AccountedRecord;
use App\Shop\Models\Gauge;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * A measured value with person, time, gauge and window.
 *
 * @property int $id
 * @property int $build_id
 * @property string $kind
 * @property string $code
 * @property string $value
 * @property string $unit
 * @property string $typed
 * @property string $si
 * @property string|null $window_min
 * @property string|null $window_max
 * @property bool $inside
 * @property int|null $gauge_id
 * @property string $note
 * @property int $measured_by
 * @property Carbon $measured_at
 * @property Carbon|null $tablet_at
 * @property Carbon|null $undone_at
 * @property Gauge|null $gauge
 */
final class Measurement extends AccountedRecord
{
    protected $table = 'measurements';

    protected $fillable = [
        'build_id',
        'kind',
        'code',
        'value',
        'unit',
        'typed',
        'si',
        'window_min',
        'window_max',
        'inside',
        'gauge_id',
        'note',
        'measured_by',
        'measured_at',
        'tablet_at',
        'undone_at',
    ];

    protected $casts = [
        'inside' => 'boolean',
        'measured_at' => 'datetime',
        'tablet_at' => 'datetime',
        'undone_at' => 'datetime',
    ];

    /** @return BelongsTo<Gauge, $this> */
    public function gauge(): BelongsTo
    {
        return $this->belongsTo(Gauge::class);
    }
}
