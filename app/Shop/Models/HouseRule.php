<?php

namespace App\Shop\Models;

use App\Kernel\Record;

/**
 * What the shop decided where practitioners differ, with its reason and who signed.
 *
 * @property int $id
 * @property string $code
 * @property string $choice
 * @property string $reason
 * @property int|null $set_by
 * @property int $version
 */
final class HouseRule extends Record
{
    protected $table = 'house_rules';

    protected $fillable = [
        'code',
        'choice',
        'reason',
        'set_by',
        'version',
    ];
}
