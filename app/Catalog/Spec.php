<?php

namespace App\Catalog;

use App\Shop\Record;

/** One specification of a family (window, step, torque, limit) with source, edition and confidence. */
final class Spec extends Record
{
    protected $table = 'specs';

    protected $casts = ['body' => 'array'];
}
