<?php

namespace App\Shop;

use Illuminate\Database\Eloquent\Model;

/** A question practitioners disagree on, and the choice in force here. */
final class HouseRule extends Model
{
    protected $table = 'house_rules';

    protected $guarded = [];

    public $timestamps = false;

    protected $casts = ['choices' => 'array'];
}
