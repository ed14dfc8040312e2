<?php

namespace App\Catalog\Models;

use App\Kernel\Record;

/** A change that can be made to a build, with its rules as data. */
final class Option extends Record
{
    protected $table = 'options';

    protected $casts = ['body' => 'array'];
}
