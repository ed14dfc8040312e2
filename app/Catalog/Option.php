<?php

namespace App\Catalog;

use Illuminate\Database\Eloquent\Model;

/** A change that can be made to a build, with its rules as data. */
final class Option extends Model
{
    protected $table = 'options';

    protected $guarded = [];

    public $timestamps = false;

    protected $casts = ['body' => 'array'];
}
