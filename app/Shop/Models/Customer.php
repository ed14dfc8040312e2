<?php

namespace App\Shop\Models;

use App\Kernel\Record;

/**
 * Somebody who sends cores and buys units.
 *
 * @property int $id
 * @property string $code
 * @property string $name
 * @property string $kind
 * @property string $city
 */
final class Customer extends Record
{
    protected $table = 'customers';

    protected $fillable = [
        'code',
        'name',
        'kind',
        'city',
    ];
}
