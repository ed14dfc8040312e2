<?php

namespace App\Stations\Returns\Models;

use App\Kernel\Ledger\AccountedRecord;

/**
 * Something seen on a unit that came back.
 *
 * @property int $id
 * @property int $return_id
 * @property string $feature
 * @property string $value
 */
final class ReturnObservation extends AccountedRecord
{
    protected $table = 'return_observations';

    protected $fillable = ['return_id', 'feature', 'value'];
}
