<?php

namespace App\Stations\Receiving\Models;

use App\Kernel\Ledger\AccountedRecord;
use Illuminate\Support\Carbon;

/**
 * Pieces of a tray counted on a scale.
 *
 * @property int $id
 * @property int $unit_id
 * @property string $tag
 * @property string $item
 * @property int $expected
 * @property int $counted
 * @property string $net_g
 * @property string $piece_g
 * @property int $weighed_by
 * @property Carbon $weighed_at
 */
final class TrayWeighing extends AccountedRecord
{
    protected $table = 'tray_weighings';

    protected $fillable = [
        'unit_id',
        'tag',
        'item',
        'expected',
        'counted',
        'net_g',
        'piece_g',
        'weighed_by',
        'weighed_at',
    ];

    protected $casts = ['weighed_at' => 'datetime'];
}
