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
        return self::query()->joinSub(self::hits($typed), 'hit', 'hit.id', '=', 'parts.id');
    }

    public static function countCalled(string $typed): int
    {
        return self::query()->fromSub(self::hits($typed), 'hit')->count();
    }

    /** @return Builder<self> the same parts, found by walking a list in its order: soonest where many are called so */
    public static function calledAmongAll(string $typed): Builder
    {
        return self::query()->where(
            fn (Builder $q) => $q
                ->where('number', 'like', self::beginning($typed))
                ->orWhereFullText(self::WORDS, self::words($typed)),
        );
    }

    private const WORDS = ['number', 'name', 'aliases'];

    /** @return Builder<self> */
    private static function hits(string $typed): Builder
    {
        return self::query()
            ->where('number', 'like', self::beginning($typed))
            ->select('id')
            ->union(self::query()->whereFullText(self::WORDS, self::words($typed))->select('id'));
    }

    private static function beginning(string $typed): string
    {
        return addcslashes($typed, '%_\\').'%';
    }

    private static function words(string $typed): string
    {
        return (string) preg_replace('/[^\p{L}\p{N}-]+/u', ' ', $typed);
    }
}
