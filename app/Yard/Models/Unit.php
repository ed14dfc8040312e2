<?php

namespace App\Yard\Models;

use App\Catalog\Models\Family;
use App\Catalog\Models\JobType;
use App\Catalog\Models\Variant;
use App\Kernel\Record;
use App\Shop\Models\Customer;
use App\Shop\Models\Person;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;

/** One physical unit, from core tag to return. Every station works on it. */
final class Unit extends Record
{
    protected $table = 'units';

    protected $casts = [
        'clues' => 'array',
        'missing' => 'array',
        'failed_hard' => 'array',
        'codes' => 'array',
        'credit_lines' => 'array',
        'symptoms' => 'array',
        'pressures' => 'array',
        'flags' => 'array',
        'damage' => 'array',
        'credit_revision' => 'array',
        'received_at' => 'datetime',
        'station_since' => 'datetime',
        'identified_at' => 'datetime',
        'promised_on' => 'date:Y-m-d',
    ];

    public function family(): BelongsTo
    {
        return $this->belongsTo(Family::class);
    }

    public function variant(): BelongsTo
    {
        return $this->belongsTo(Variant::class);
    }

    public function jobType(): BelongsTo
    {
        return $this->belongsTo(JobType::class);
    }

    public function customer(): BelongsTo
    {
        return $this->belongsTo(Customer::class);
    }

    public function receiver(): BelongsTo
    {
        return $this->belongsTo(Person::class, 'received_by');
    }

    public function currentBuild(): BelongsTo
    {
        return $this->belongsTo(Build::class, 'current_build_id');
    }

    public function builds(): HasMany
    {
        return $this->hasMany(Build::class);
    }

    public function holds(): HasMany
    {
        return $this->hasMany(Hold::class);
    }

    /**
     * With the names lists and headers show, in one query instead of one a relation.
     *
     * @param  \Illuminate\Database\Eloquent\Builder<Unit>  $query
     */
    public function scopeNamed($query): void
    {
        $query
            ->leftJoin('families', 'families.id', '=', 'units.family_id')
            ->leftJoin('variants', 'variants.id', '=', 'units.variant_id')
            ->join('job_types', 'job_types.id', '=', 'units.job_type_id')
            ->leftJoin('customers', 'customers.id', '=', 'units.customer_id')
            ->leftJoin('builds', 'builds.id', '=', 'units.current_build_id')
            ->leftJoin('packages', 'packages.id', '=', 'builds.package_id')
            ->select(
                'units.*',
                'families.name AS family_name',
                'variants.code AS variant_code',
                'variants.name AS variant_name',
                'job_types.code AS job_code',
                'job_types.name AS job_name',
                'job_types.route AS job_route',
                'customers.code AS customer_code',
                'customers.name AS customer_name',
                'builds.serial AS build_serial',
                'builds.generation AS build_generation',
                'builds.state AS build_state',
                'packages.name AS package_name',
            );
    }

    /** @param  string  $number core tag or unit serial, as scanned */
    public static function byNumber(string $number): self
    {
        return self::query()->where('core_tag', $number)->first() ??
            self::query()
                ->whereIn('id', Build::query()->select('unit_id')->where('serial', $number))
                ->firstOrFail();
    }

    /** Sends the unit to a station, if its job type goes there. */
    public function moveTo(string $station): void
    {
        if ($this->station !== $station) {
            $this->update(['station' => $station, 'station_since' => now()]);
        }
    }
}
