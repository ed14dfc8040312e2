<?php

namespace App\Receiving;

use Illuminate\Database\Eloquent\Model;

/** A picture of a unit, re-encoded and without location data. */
final class Photo extends Model
{
    protected $table = 'photos';

    protected $guarded = [];

    public $timestamps = false;

    protected $casts = ['created_at' => 'datetime'];
}
