<?php

namespace App\Shop;

/** A measuring tool with its range and calibration date. */
final class Gauge extends Record
{
    protected $table = 'gauges';
}
