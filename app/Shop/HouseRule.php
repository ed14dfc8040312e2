<?php

namespace App\Shop;

/** A question practitioners disagree on, and the choice in force here. */
final class HouseRule extends Record
{
    protected $table = 'house_rules';

    protected $casts = ['choices' => 'array'];
}
