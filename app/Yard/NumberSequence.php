<?php

namespace App\Yard;

use App\Kernel\Record;

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
        self::query()->insertOrIgnore(['name' => $name, 'last' => 0]);
        $row = self::query()->lockForUpdate()->findOrFail($name);
        $row->update(['last' => $row->last + 1]);

        return $row->last;
    }
}
