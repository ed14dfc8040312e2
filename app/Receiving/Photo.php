<?php

namespace App\Receiving;

use App\Shop\Record;

/** A picture of a unit, re-encoded and without location data. */
final class Photo extends Record
{
    protected $table = 'photos';

    protected $casts = ['created_at' => 'datetime'];
}
