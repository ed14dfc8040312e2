<?php

namespace App\Yard\Models;

use App\Catalog\Models\Package;
use App\Catalog\Models\Vehicle;
use App\Kernel\Ledger\AccountedRecord;
use App\Kernel\Refusal;
use App\Shop\Models\Customer;
use App\Yard\AskedOrder;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Support\Carbon;

/**
 * One build of a unit: an order, then a frozen specification under a serial.
 *
 * @property int $id
 * @property int $unit_id
 * @property string|null $serial
 * @property int $generation
 * @property int|null $parent_build_id
 * @property int|null $customer_id
 * @property int|null $vehicle_id
 * @property int $package_id
 * @property string $duty
 * @property array<string, mixed>|null $asked_duty
 * @property array<mixed>|null $spec
 * @property string $price
 * @property string $hours
 * @property Carbon|null $promised_on
 * @property string $state
 * @property Carbon|null $teardown_done_at
 * @property int|null $released_by
 * @property Carbon|null $released_at
 * @property int $created_by
 * @property Carbon $created_at
 * @property int $version
 * @property Unit $unit
 * @property Package $package
 * @property Vehicle|null $vehicle
 * @property Customer|null $customer
 * @property Build|null $parent
 * @property Collection<int, OrderOption> $orderOptions
 */
final class Build extends AccountedRecord
{
    protected $table = 'builds';

    protected $fillable = [
        'unit_id',
        'serial',
        'generation',
        'parent_build_id',
        'customer_id',
        'vehicle_id',
        'package_id',
        'duty',
        'asked_duty',
        'spec',
        'price',
        'hours',
        'promised_on',
        'state',
        'teardown_done_at',
        'released_by',
        'released_at',
        'created_by',
        'created_at',
        'version',
    ];

    /** What many builds share word for word: of the unit and its package; of the order and the vehicle. */
    protected const PAPERS = [
        'spec' => [
            [
                'packs',
                'endPlays',
                'fasteners',
                'airChecks',
                'benchTests',
                'assembly',
                'testProgram',
                'hardware',
                'converter',
                'train',
                'always',
                'elements',
                'scopes',
            ],
            [
                'options',
                'available',
                'forbidden',
                'added',
                'removed',
                'omitted',
                'bom',
                'work',
                'duty',
                'converterMatch',
                'held',
                'margins',
                'sensitivity',
            ],
        ],
    ];

    protected $casts = [
        'asked_duty' => 'array',
        'spec' => 'array',
        'released_at' => 'datetime',
        'created_at' => 'datetime',
        'teardown_done_at' => 'datetime',
        'promised_on' => 'date:Y-m-d',
    ];

    /** @return BelongsTo<Unit, $this> */
    public function unit(): BelongsTo
    {
        return $this->belongsTo(Unit::class);
    }

    /** @return BelongsTo<Package, $this> */
    public function package(): BelongsTo
    {
        return $this->belongsTo(Package::class);
    }

    /** @return BelongsTo<Vehicle, $this> */
    public function vehicle(): BelongsTo
    {
        return $this->belongsTo(Vehicle::class);
    }

    /** @return BelongsTo<Customer, $this> */
    public function customer(): BelongsTo
    {
        return $this->belongsTo(Customer::class);
    }

    /** @return BelongsTo<Build, $this> */
    public function parent(): BelongsTo
    {
        return $this->belongsTo(Build::class, 'parent_build_id');
    }

    /** @return HasMany<OrderOption, $this> */
    public function orderOptions(): HasMany
    {
        return $this->hasMany(OrderOption::class)->orderBy('position');
    }

    /** What was asked for, as it is written. */
    public function asked(): AskedOrder
    {
        $this->loadMissing(['package', 'orderOptions.option']);
        $codes = fn (string $wish): array => array_values(
            $this->orderOptions->where('wish', $wish)->map(fn (OrderOption $o) => $o->option->code)->all(),
        );

        return new AskedOrder($this->package->code, $codes('add'), $codes('drop'), $this->asked_duty);
    }

    /**
     * Specifications frozen before checks had a place of their own list plain operations; they are read in today's form
     * and stay as they are.
     */
    protected function castAttribute($key, $value)
    {
        $cast = parent::castAttribute($key, $value);
        if ($key === 'spec' && isset($cast['operations']) && ! isset($cast['work'])) {
            $cast['work'] = array_map(
                fn (string $text) => ['kind' => 'work', 'text' => $text, 'option' => ''],
                $cast['operations'],
            );
        }

        return $cast;
    }

    /**
     * The released build of the unit with this tag or serial, with its unit.
     *
     * @throws Refusal where nothing is released yet
     */
    public static function released(string $number): self
    {
        $unit = Unit::byNumber($number);
        $build = $unit->currentBuild;
        if ($build === null || $build->spec === null) {
            throw new Refusal('This unit has no released build yet.', 409);
        }

        return $build->setRelation('unit', $unit);
    }

    /**
     * The specification as it was frozen at release.
     *
     * @return array<string, mixed>
     *
     * @throws Refusal while the build is a draft
     */
    public function frozen(): array
    {
        return $this->spec ?? throw new Refusal('This build is not released yet, so nothing of it is frozen.', 409);
    }
}
