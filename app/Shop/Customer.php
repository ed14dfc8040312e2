<?php

namespace App\Shop;

use Illuminate\Database\Eloquent\Model;

/** Somebody who sends cores and buys units. */
final class Customer extends Model
{
    protected $table = 'customers';

    protected $guarded = [];

    public $timestamps = false;
}
