<?php

namespace App\Catalog;

use App\Shop\Record;

/** A change that can be made to a build, with its rules as data. */
final class Option extends Record
{
    protected $table = 'options';

    protected $casts = ['body' => 'array'];
}
