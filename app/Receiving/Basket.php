<?php

namespace App\Receiving;

use App\Shop\Record;

/** A tagged tray of loose parts. */
final class Basket extends Record
{
    protected $table = 'baskets';
}
