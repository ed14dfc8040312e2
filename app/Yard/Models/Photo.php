<?php

namespace App\Yard\Models;

use App\Kernel\Record;

/** A picture of a unit, re-encoded and without location data. */
final class Photo extends Record
{
    protected $table = 'photos';

    protected $casts = ['created_at' => 'datetime'];
}
