<?php

namespace App\Stations\Teardown\Models;

use App\Kernel\Ledger\AccountedRecord;

/**
 * One friction plate of a pack as it was found, counted from the piston.
 *
 * @property int $id
 * @property int $finding_id
 * @property int $position
 * @property string $condition
 */
final class FindingPlate extends AccountedRecord
{
    protected $table = 'finding_plates';

    protected $fillable = ['finding_id', 'position', 'condition'];
}
