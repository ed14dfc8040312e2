<?php

namespace App\Bench;

use Illuminate\Database\Eloquent\Model;

/** The selective parts chosen for a pack and the clearance predicted. */
final class PackFit extends Model
{
    protected $table = 'pack_fits';

    protected $guarded = [];

    public $timestamps = false;

    protected $casts = ['picks' => 'array', 'fitted_at' => 'datetime'];
}
