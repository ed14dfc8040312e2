<?php

namespace App\Yard\Models;

use App\Catalog\Models\Package;
use App\Catalog\Models\Vehicle;
use App\Kernel\Record;
use App\Kernel\Refusal;
use App\Shop\Models\Customer;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** One build of a unit: an order, then a frozen specification under a serial. */
final class Build extends Record
{
    protected $table = 'builds';

    protected $casts = [
        'order_lines' => 'array',
        'spec' => 'array',
        'released_at' => 'datetime',
        'created_at' => 'datetime',
        'teardown_done_at' => 'datetime',
        'promised_on' => 'date:Y-m-d',
    ];

    public function unit(): BelongsTo
    {
        return $this->belongsTo(Unit::class);
    }

    public function package(): BelongsTo
    {
        return $this->belongsTo(Package::class);
    }

    public function vehicle(): BelongsTo
    {
        return $this->belongsTo(Vehicle::class);
    }

    public function customer(): BelongsTo
    {
        return $this->belongsTo(Customer::class);
    }

    public function parent(): BelongsTo
    {
        return $this->belongsTo(Build::class, 'parent_build_id');
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
}
