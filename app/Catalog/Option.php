<?php

namespace App\Catalog;

use App\Shop\KeepsDecodedJson;
use Illuminate\Database\Eloquent\Model;

/** A change that can be made to a build, with its rules as data. */
final class Option extends Model
{
    use KeepsDecodedJson;

    protected $table = 'options';

    protected $guarded = [];

    public $timestamps = false;

    protected $casts = ['body' => 'array'];
}
