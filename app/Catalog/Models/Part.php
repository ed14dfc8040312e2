<?php

namespace App\Catalog\Models;

use App\Kernel\Record;

/** A part number with its price; selective parts carry their thickness. */
final class Part extends Record
{
    protected $table = 'parts';

    protected $casts = ['aliases' => 'array', 'single_use' => 'boolean'];
}
