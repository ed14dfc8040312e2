<?php

namespace App\Stations\Receiving\Models;

use App\Kernel\Ledger\AccountedRecord;

/**
 * Something that lies in a tray.
 *
 * @property int $id
 * @property int $tray_id
 * @property string $name
 * @property int $count
 * @property string $keep_together
 */
final class TrayItem extends AccountedRecord
{
    protected $table = 'tray_items';

    protected $fillable = [
        'tray_id',
        'name',
        'count',
        'keep_together',
    ];
}
