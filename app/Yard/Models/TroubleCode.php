<?php

namespace App\Yard\Models;

use App\Kernel\Ledger\AccountedRecord;

/**
 * A trouble code that came with a core, or with a unit that came back.
 *
 * @property int $id
 * @property int $unit_id
 * @property int|null $return_id
 * @property int $position
 * @property string $code
 */
final class TroubleCode extends AccountedRecord
{
    protected $table = 'trouble_codes';

    protected $fillable = ['unit_id', 'return_id', 'position', 'code'];
}
