<?php

namespace App\Catalog\Models;

use App\Kernel\Record;

/**
 * A part number with its price; selective parts carry their thickness.
 *
 * @property int $id
 * @property string $number
 * @property string $name
 * @property string $kind
 * @property string $price
 * @property string|null $thickness
 * @property string|null $thickness_unit
 * @property array<mixed> $aliases
 * @property bool $single_use
 * @property int|null $changed_by
 */
final class Part extends Record
{
    protected $table = 'parts';

    protected $fillable = [
        'number',
        'name',
        'kind',
        'price',
        'thickness',
        'thickness_unit',
        'aliases',
        'single_use',
        'changed_by',
    ];

    protected $casts = ['aliases' => 'array', 'single_use' => 'boolean'];
}
