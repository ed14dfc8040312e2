<?php

namespace App\Stations\Receiving\Models;

use App\Kernel\Record;

/**
 * Something that lies in a tray.
 *
 * @property int $id
 * @property int $tray_id
 * @property string $name
 * @property int $count
 * @property string $keep_together
 */
final class TrayItem extends Record
{
    protected $table = 'tray_items';

    protected $fillable = [
        'tray_id',
        'name',
        'count',
        'keep_together',
    ];
}
