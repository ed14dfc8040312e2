<?php

namespace App\Catalog\Models;

use App\Kernel\Record;

/** A transmission family: gear train, apply chart and what holds for all its variants. */
final class Family extends Record
{
    protected $table = 'families';

    protected $casts = ['train' => 'array', 'body' => 'array'];
}
