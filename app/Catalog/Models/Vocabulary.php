<?php

namespace App\Catalog\Models;

/**
 * Words of the trade as data: intake clues and their meaning, the grading rules of the house, trouble codes.
 *
 * @property int $id
 * @property string $code
 * @property string $source
 * @property \stdClass $body
 * @property int|null $changed_by
 */
final class Vocabulary extends CatalogRecord
{
    protected $table = 'vocabularies';

    protected $fillable = [
        'code',
        'source',
        'body',
        'changed_by',
    ];

    protected $casts = ['body' => 'object'];

    public static function body(string $code): \stdClass
    {
        return self::query()->where('code', $code)->firstOrFail()->body;
    }
}
