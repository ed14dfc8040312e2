<?php

namespace App\Shipping;

use Illuminate\Database\Eloquent\Model;

/** What the installer did and measured; the warranty starts with it. */
final class Commissioning extends Model
{
    protected $table = 'commissionings';

    protected $guarded = [];

    public $timestamps = false;

    protected $casts = ['items' => 'array', 'depth' => 'array', 'recorded_at' => 'datetime'];
}
