<?php

namespace App\Catalog\Models;

use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * One exact unit variant with the clues expected of it.
 *
 * @property int $id
 * @property int $family_id
 * @property string $code
 * @property string $name
 * @property int $from_year
 * @property int $to_year
 * @property string $prior
 * @property array<mixed> $expect
 * @property string $core_charge
 * @property string $scrap_value
 * @property string $facts
 * @property array<mixed> $hardware
 * @property int|null $changed_by
 * @property Family $family
 */
final class Variant extends CatalogRecord
{
    protected $table = 'variants';

    protected $fillable = [
        'family_id',
        'code',
        'name',
        'from_year',
        'to_year',
        'prior',
        'expect',
        'core_charge',
        'scrap_value',
        'facts',
        'hardware',
        'changed_by',
    ];

    protected $casts = ['expect' => 'array', 'hardware' => 'array'];

    /** @return BelongsTo<Family, $this> */
    public function family(): BelongsTo
    {
        return $this->belongsTo(Family::class);
    }
}
