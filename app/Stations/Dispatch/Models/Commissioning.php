<?php

namespace App\Stations\Dispatch\Models;

use App\Kernel\Record;

/** What the installer did and measured; the warranty starts with it. */
final class Commissioning extends Record
{
    protected $table = 'commissionings';

    protected $casts = ['items' => 'array', 'depth' => 'array', 'recorded_at' => 'datetime'];
}
