<?php

namespace App\Shop\Models;

use App\Kernel\Record;

/**
 * A measuring tool with its range and calibration date.
 *
 * @property int $id
 * @property string $code
 * @property string $name
 * @property string $kind
 * @property string $unit
 * @property string $resolution
 * @property string $range_min
 * @property string $range_max
 * @property string $calibrated_until
 */
final class Gauge extends Record
{
    protected $table = 'gauges';

    protected $fillable = [
        'code',
        'name',
        'kind',
        'unit',
        'resolution',
        'range_min',
        'range_max',
        'calibrated_until',
    ];
}
