<?php

namespace App\Yard;

use App\Kernel\Record;
use Illuminate\Database\Query\Expression;

/**
 * Numbers given out one after the other, without gaps in a committed history and without an end.
 *
 * @property string $name
 * @property int $last
 */
final class NumberSequence extends Record
{
    protected $table = 'number_sequences';

    protected $primaryKey = 'name';

    protected $keyType = 'string';

    public $incrementing = false;

    protected $fillable = ['name', 'last'];

    /** Takes the next number; the row stays locked until the transaction ends, so no two get the same. */
    public static function next(string $name): int
    {
        // One statement takes the row for itself: to look first and write then would let two wait for each other.
        self::query()->upsert(['name' => $name, 'last' => 1], ['name'], ['last' => new Expression('last + 1')]);

        return self::query()->findOrFail($name)->last;
    }
}
