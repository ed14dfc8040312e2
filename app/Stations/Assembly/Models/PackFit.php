<?php

namespace App\Stations\Assembly\Models;

use App\Kernel\Record;

/** The selective parts chosen for a pack and the clearance predicted. */
final class PackFit extends Record
{
    protected $table = 'pack_fits';

    protected $casts = ['picks' => 'array', 'fitted_at' => 'datetime'];
}
