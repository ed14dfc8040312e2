<?php

namespace App\Yard\Models;

use App\Kernel\Ledger\AccountedRecord;

/**
 * Damage that was there on arrival, and where.
 *
 * @property int $id
 * @property int $unit_id
 * @property int $position
 * @property string $place
 * @property string $what
 */
final class DamageMark extends AccountedRecord
{
    protected $table = 'damage_marks';

    protected $fillable = ['unit_id', 'position', 'place', 'what'];
}
