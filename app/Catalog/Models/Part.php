<?php

namespace App\Catalog\Models;

use App\Kernel\Record;
use Illuminate\Database\Eloquent\Builder;

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

    /** @return Builder<self> parts whose number begins so, or that carry one of the words */
    public static function called(string $typed): Builder
    {
        // Two indexes, one after the other: an OR across them would read every part.
        $words = (string) preg_replace('/[^\p{L}\p{N}-]+/u', ' ', $typed);
        $hits = self::query()
            ->where('number', 'like', addcslashes($typed, '%_\\').'%')
            ->select('id')
            ->union(self::query()->whereFullText(['number', 'name', 'aliases'], $words)->select('id'));

        return self::query()->joinSub($hits, 'hit', 'hit.id', '=', 'parts.id');
    }
}
