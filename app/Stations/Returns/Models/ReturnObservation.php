<?php

namespace App\Stations\Returns\Models;

use App\Kernel\Record;

/**
 * Something seen on a unit that came back.
 *
 * @property int $id
 * @property int $return_id
 * @property string $feature
 * @property string $value
 */
final class ReturnObservation extends Record
{
    protected $table = 'return_observations';

    protected $fillable = ['return_id', 'feature', 'value'];
}
