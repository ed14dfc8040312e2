<?php

namespace App\Shop\Models;

use App\Kernel\Record;

/** A measuring tool with its range and calibration date. */
final class Gauge extends Record
{
    protected $table = 'gauges';
}
