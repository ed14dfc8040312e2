<?php

namespace App\Stations\Returns\Models;

use App\Kernel\Ledger\AccountedRecord;

/**
 * A measurement on a unit that came back, to set against the one of its build.
 *
 * @property int $id
 * @property int $return_id
 * @property string $kind
 * @property string $place
 * @property string $value
 * @property string $unit
 * @property string $typed
 */
final class ReturnReading extends AccountedRecord
{
    protected $table = 'return_readings';

    protected $fillable = ['return_id', 'kind', 'place', 'value', 'unit', 'typed'];
}
