<?php

namespace App\Receiving;

use Illuminate\Database\Eloquent\Model;

/** A tagged tray of loose parts. */
final class Basket extends Model
{
    protected $table = 'baskets';

    protected $guarded = [];

    public $timestamps = false;
}
