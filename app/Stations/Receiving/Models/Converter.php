<?php

namespace App\Stations\Receiving\Models;

use App\Kernel\Record;

/** A torque converter: its own serial and core value. */
final class Converter extends Record
{
    protected $table = 'converters';
}
