<?php

namespace App\Catalog;

use Illuminate\Database\Eloquent\Model;

/** A vehicle the catalog knows. */
final class Vehicle extends Model
{
    protected $table = 'vehicles';

    protected $guarded = [];

    public $timestamps = false;

    protected $casts = ['engine_curve' => 'array'];
}
