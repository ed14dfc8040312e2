<?php

namespace App\Catalog\Models;

use App\Kernel\Record;

/** Words of the trade as data: intake clues and their meaning, the grading rules of the house, trouble codes. */
final class Vocabulary extends Record
{
    protected $table = 'vocabularies';

    protected $casts = ['body' => 'object'];

    public static function body(string $code): \stdClass
    {
        return self::query()->where('code', $code)->firstOrFail()->body;
    }
}
