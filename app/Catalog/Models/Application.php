<?php

namespace App\Catalog\Models;

use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * A variant that fits a vehicle as it is, with source and confidence.
 *
 * @property int $id
 * @property int $variant_id
 * @property int $vehicle_id
 * @property int $from_year
 * @property int $to_year
 * @property string $source
 * @property string $edition
 * @property string $confidence
 * @property int|null $changed_by
 * @property Variant $variant
 * @property Vehicle $vehicle
 */
final class Application extends CatalogRecord
{
    protected $table = 'applications';

    protected $fillable = [
        'variant_id',
        'vehicle_id',
        'from_year',
        'to_year',
        'source',
        'edition',
        'confidence',
        'changed_by',
    ];

    /** @return BelongsTo<Variant, $this> */
    public function variant(): BelongsTo
    {
        return $this->belongsTo(Variant::class);
    }

    /** @return BelongsTo<Vehicle, $this> */
    public function vehicle(): BelongsTo
    {
        return $this->belongsTo(Vehicle::class);
    }
}
