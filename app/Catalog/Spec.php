<?php

namespace App\Catalog;

use App\Shop\KeepsDecodedJson;
use Illuminate\Database\Eloquent\Model;

/** One specification of a family (window, step, torque, limit) with source, edition and confidence. */
final class Spec extends Model
{
    use KeepsDecodedJson;

    protected $table = 'specs';

    protected $guarded = [];

    public $timestamps = false;

    protected $casts = ['body' => 'array'];
}
