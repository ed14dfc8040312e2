<?php

namespace App\Stations\Assembly\Models;

use App\Kernel\Record;

/** Somebody signs for a place in the build. */
final class SignOff extends Record
{
    protected $table = 'sign_offs';

    protected $casts = ['signed_at' => 'datetime'];
}
