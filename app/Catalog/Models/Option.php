<?php

namespace App\Catalog\Models;

/**
 * A change that can be made to a build, with its rules as data.
 *
 * @property int $id
 * @property int $family_id
 * @property string $code
 * @property string $name
 * @property string $price
 * @property string $hours
 * @property array<mixed> $body
 * @property int|null $changed_by
 */
final class Option extends CatalogRecord
{
    protected $table = 'options';

    protected $fillable = [
        'family_id',
        'code',
        'name',
        'price',
        'hours',
        'body',
        'changed_by',
    ];

    protected $casts = ['body' => 'array'];
}
