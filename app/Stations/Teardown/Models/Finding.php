<?php

namespace App\Stations\Teardown\Models;

use App\Kernel\Record;

/** What was found on a part and what becomes of it. */
final class Finding extends Record
{
    protected $table = 'findings';

    protected $casts = ['found_at' => 'datetime', 'ours' => 'boolean'];
}
