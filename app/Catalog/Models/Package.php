<?php

namespace App\Catalog\Models;

use App\Kernel\Record;

/** A named set of options for a family and duty. */
final class Package extends Record
{
    protected $table = 'packages';

    protected $casts = ['body' => 'array'];
}
