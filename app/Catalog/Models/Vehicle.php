<?php

namespace App\Catalog\Models;

use App\Kernel\Record;

/** A vehicle the catalog knows. */
final class Vehicle extends Record
{
    protected $table = 'vehicles';

    protected $casts = ['engine_curve' => 'array'];
}
