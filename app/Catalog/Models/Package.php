<?php

namespace App\Catalog\Models;

/**
 * A named set of options for a family and duty.
 *
 * @property int $id
 * @property int $family_id
 * @property string $code
 * @property string $name
 * @property string $duty
 * @property string $base_price
 * @property string $base_hours
 * @property array<mixed> $body
 * @property int|null $changed_by
 */
final class Package extends CatalogRecord
{
    protected $table = 'packages';

    protected $fillable = [
        'family_id',
        'code',
        'name',
        'duty',
        'base_price',
        'base_hours',
        'body',
        'changed_by',
    ];

    protected $casts = ['body' => 'array'];
}
