<?php

namespace App\Receiving;

use App\Shop\Record;

/** A torque converter: its own serial and core value. */
final class Converter extends Record
{
    protected $table = 'converters';
}
