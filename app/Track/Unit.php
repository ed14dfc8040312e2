<?php

namespace App\Track;

use App\Catalog\Family;
use App\Catalog\JobType;
use App\Catalog\Variant;
use App\Shop\Customer;
use App\Shop\KeepsDecodedJson;
use App\Shop\Person;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;

/** One physical unit, from core tag to return. Every station works on it. */
final class Unit extends Model
{
    use KeepsDecodedJson;

    protected $table = 'units';

    protected $guarded = [];

    public $timestamps = false;

    protected $casts = ['clues' => 'array', 'missing' => 'array', 'failed_hard' => 'array', 'codes' => 'array', 'credit_lines' => 'array', 'symptoms' => 'array', 'received_at' => 'datetime', 'station_since' => 'datetime', 'identified_at' => 'datetime', 'promised_on' => 'date:Y-m-d'];

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

    /** @param  string  $number core tag or unit serial, as scanned */
    public static function byNumber(string $number): self
    {
        return self::query()->where('core_tag', $number)->first()
            ?? self::query()->whereIn('id', Build::query()->select('unit_id')->where('serial', $number))->firstOrFail();
    }

    /** Sends the unit to a station, if its job type goes there. */
    public function moveTo(string $station): void
    {
        if ($this->station !== $station) {
            $this->update(['station' => $station, 'station_since' => now()]);
        }
    }
}
