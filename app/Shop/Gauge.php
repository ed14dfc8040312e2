<?php

namespace App\Shop;

use Illuminate\Database\Eloquent\Model;

/** A measuring tool with its range and calibration date. */
final class Gauge extends Model
{
    protected $table = 'gauges';

    protected $guarded = [];

    public $timestamps = false;
}
