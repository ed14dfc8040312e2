<?php

namespace App\Stations\Returns\Models;

use App\Kernel\Ledger\AccountedRecord;
use App\Shop\Models\Person;
use App\Yard\Contracts\OfUnit;
use App\Yard\Models\Build;
use App\Yard\Models\TroubleCode;
use App\Yard\Models\Unit;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Support\Carbon;

/**
 * A unit that came back under its serial.
 *
 * @property int $id
 * @property string $number
 * @property int $build_id
 * @property int $unit_id
 * @property string $complaint
 * @property Collection<int, TroubleCode> $troubleCodes
 * @property string|null $installed_on
 * @property string $failed_on
 * @property int|null $odometer_km
 * @property Collection<int, ReturnObservation> $observations
 * @property Collection<int, ReturnReading> $readings
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
final class UnitReturn extends AccountedRecord implements OfUnit
{
    protected $table = 'returns';

    protected $fillable = [
        'number',
        'build_id',
        'unit_id',
        'complaint',
        'installed_on',
        'failed_on',
        'odometer_km',
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
        'ranking' => 'array',
        'weights' => 'array',
        'cost_split' => 'array',
        'opened_at' => 'datetime',
        'verdict_at' => 'datetime',
    ];

    public function unitId(): int
    {
        return $this->unit_id;
    }

    public function getRouteKeyName(): string
    {
        return 'number';
    }

    /** @return HasMany<TroubleCode, $this> */
    public function troubleCodes(): HasMany
    {
        return $this->hasMany(TroubleCode::class, 'return_id')->orderBy('position');
    }

    /** @return HasMany<ReturnObservation, $this> */
    public function observations(): HasMany
    {
        return $this->hasMany(ReturnObservation::class, 'return_id')->orderBy('id');
    }

    /** @return HasMany<ReturnReading, $this> */
    public function readings(): HasMany
    {
        return $this->hasMany(ReturnReading::class, 'return_id');
    }

    /** @return array<string, string> feature => what was seen */
    public function observed(): array
    {
        return $this->observations->pluck('value', 'feature')->all();
    }

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
