<?php

namespace App\Stations\Receiving\Models;

use App\Kernel\Record;

/** A tagged tray of loose parts. */
final class Tray extends Record
{
    protected $table = 'baskets';
}
