<?php

namespace App\Catalog;

use Illuminate\Database\Eloquent\Model;

/** Words of the trade as data: intake clues and their meaning, the grading rules of the house, trouble codes. */
final class Vocabulary extends Model
{
    protected $table = 'vocabularies';

    protected $guarded = [];

    public $timestamps = false;

    protected $casts = ['body' => 'object'];

    public static function body(string $code): \stdClass
    {
        return self::query()->where('code', $code)->firstOrFail()->body;
    }
}
