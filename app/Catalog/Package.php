<?php

namespace App\Catalog;

use App\Shop\KeepsDecodedJson;
use Illuminate\Database\Eloquent\Model;

/** A named set of options for a family and duty. */
final class Package extends Model
{
    use KeepsDecodedJson;

    protected $table = 'packages';

    protected $guarded = [];

    public $timestamps = false;

    protected $casts = ['body' => 'array'];
}
