<?php

namespace App\Stations\Teardown\Models;

use App\Kernel\Ledger\AccountedRecord;
use Illuminate\Support\Carbon;

/**
 * A fastener or shaft that would not come, and how it was got out: kept with the unit for ever.
 *
 * @property int $id
 * @property int $unit_id
 * @property int $generation
 * @property string $place  code of the bolts or of the shaft
 * @property string $place_name
 * @property string $trouble
 * @property string $method
 * @property string $method_name
 * @property string $hours
 * @property string $check_after
 * @property string $note
 * @property int $done_by
 * @property Carbon $done_at
 */
final class Repair extends AccountedRecord
{
    protected $table = 'repairs';

    protected $fillable = [
        'unit_id',
        'generation',
        'place',
        'place_name',
        'trouble',
        'method',
        'method_name',
        'hours',
        'check_after',
        'note',
        'done_by',
        'done_at',
    ];

    protected $casts = ['done_at' => 'datetime'];
}
