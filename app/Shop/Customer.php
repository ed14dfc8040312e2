<?php

namespace App\Shop;

/** Somebody who sends cores and buys units. */
final class Customer extends Record
{
    protected $table = 'customers';
}
