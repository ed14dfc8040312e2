<?php

namespace App\Catalog;

use Illuminate\Database\Eloquent\Model;

/** A part number with its price; selective parts carry their thickness. */
final class Part extends Model
{
    protected $table = 'parts';

    protected $guarded = [];

    public $timestamps = false;

    protected $casts = ['aliases' => 'array', 'single_use' => 'boolean'];
}
