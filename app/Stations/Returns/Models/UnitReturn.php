<?php

namespace App\Stations\Returns\Models;

use App\Kernel\Record;
use App\Shop\Models\Person;
use App\Yard\Models\Build;
use App\Yard\Models\Unit;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * A unit that came back under its serial.
 *
 * @property int $id
 * @property string $number
 * @property int $build_id
 * @property int $unit_id
 * @property string $complaint
 * @property array<mixed> $codes
 * @property string|null $installed_on
 * @property string $failed_on
 * @property int|null $odometer_km
 * @property array<mixed> $observed
 * @property array<mixed>|null $ranking
 * @property string|null $verdict
 * @property array<mixed>|null $weights
 * @property string $verdict_note
 * @property array<mixed>|null $cost_split
 * @property int|null $verdict_by
 * @property Carbon|null $verdict_at
 * @property int|null $second_build_id
 * @property int $opened_by
 * @property Carbon $opened_at
 * @property int $version
 * @property Person|null $judge
 * @property Build $build
 * @property Unit $unit
 */
final class UnitReturn extends Record
{
    protected $table = 'returns';

    protected $fillable = [
        'number',
        'build_id',
        'unit_id',
        'complaint',
        'codes',
        'installed_on',
        'failed_on',
        'odometer_km',
        'observed',
        'ranking',
        'verdict',
        'weights',
        'verdict_note',
        'cost_split',
        'verdict_by',
        'verdict_at',
        'second_build_id',
        'opened_by',
        'opened_at',
        'version',
    ];

    protected $casts = [
        'codes' => 'array',
        'observed' => 'array',
        'ranking' => 'array',
        'weights' => 'array',
        'cost_split' => 'array',
        'opened_at' => 'datetime',
        'verdict_at' => 'datetime',
    ];

    /** @return BelongsTo<Person, $this> */
    public function judge(): BelongsTo
    {
        return $this->belongsTo(Person::class, 'verdict_by');
    }

    /** @return BelongsTo<Build, $this> */
    public function build(): BelongsTo
    {
        return $this->belongsTo(Build::class);
    }

    /** @return BelongsTo<Unit, $this> */
    public function unit(): BelongsTo
    {
        return $this->belongsTo(Unit::class);
    }
}
