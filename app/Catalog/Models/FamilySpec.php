<?php

namespace App\Catalog\Models;

use App\Kernel\Record;

/** One specification of a family (window, step, torque, limit) with source, edition and confidence. */
final class FamilySpec extends Record
{
    protected $table = 'specs';

    protected $casts = ['body' => 'array'];
}
