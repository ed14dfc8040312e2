<?php

namespace App\Stations\Teardown\Models;

use App\Kernel\Ledger\AccountedRecord;
use App\Shop\Models\Gauge;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Support\Carbon;
use Illuminate\Support\Collection;

/**
 * What was found on a part and what becomes of it.
 *
 * @property int $id
 * @property int $unit_id
 * @property int $generation
 * @property string $part
 * @property string $condition
 * @property string $disposition
 * @property string $role
 * @property bool $ours
 * @property string $note
 * @property int $found_by
 * @property Carbon $found_at
 * @property int $version
 * @property string|null $measured  in the unit of the inspection list
 * @property string|null $measured_typed
 * @property bool|null $measured_inside
 * @property int|null $gauge_id
 * @property 'whole'|'missing'|null $pieces  whether all pieces of a broken part were found
 * @property string|null $route  how it is reconditioned
 * @property string|null $route_hours
 * @property bool $second_due  whether a second person grades it blind
 * @property Collection<int, FindingPlate> $plates  from the piston outwards
 * @property Gauge|null $gauge
 */
final class Finding extends AccountedRecord
{
    protected $table = 'findings';

    protected $fillable = [
        'unit_id',
        'generation',
        'part',
        'condition',
        'disposition',
        'role',
        'ours',
        'note',
        'found_by',
        'found_at',
        'version',
        'measured',
        'measured_typed',
        'measured_inside',
        'gauge_id',
        'pieces',
        'route',
        'route_hours',
        'second_due',
    ];

    protected $casts = [
        'found_at' => 'datetime',
        'ours' => 'boolean',
        'measured_inside' => 'boolean',
        'second_due' => 'boolean',
    ];

    /** @return HasMany<FindingPlate, $this> */
    public function plates(): HasMany
    {
        return $this->hasMany(FindingPlate::class)->orderBy('position');
    }

    /** @return BelongsTo<Gauge, $this> */
    public function gauge(): BelongsTo
    {
        return $this->belongsTo(Gauge::class);
    }
}
