<?php

namespace App\Catalog;

use App\Shop\KeepsDecodedJson;
use Illuminate\Database\Eloquent\Model;

/** A transmission family: gear train, apply chart and what holds for all its variants. */
final class Family extends Model
{
    use KeepsDecodedJson;

    protected $table = 'families';

    protected $guarded = [];

    public $timestamps = false;

    protected $casts = ['train' => 'array', 'body' => 'array'];
}
