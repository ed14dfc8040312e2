<?php

namespace App\Receiving;

use Illuminate\Database\Eloquent\Model;

/** A torque converter: its own serial and core value. */
final class Converter extends Model
{
    protected $table = 'converters';

    protected $guarded = [];

    public $timestamps = false;
}
