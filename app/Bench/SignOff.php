<?php

namespace App\Bench;

use Illuminate\Database\Eloquent\Model;

/** Somebody signs for a place in the build. */
final class SignOff extends Model
{
    protected $table = 'sign_offs';

    protected $guarded = [];

    public $timestamps = false;

    protected $casts = ['signed_at' => 'datetime'];
}
