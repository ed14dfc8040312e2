<?php

namespace App\Shop\Models;

use App\Kernel\Record;

/** Somebody who sends cores and buys units. */
final class Customer extends Record
{
    protected $table = 'customers';
}
