<?php

namespace App\Bench;

use App\Shop\Record;

/** What was found on a part and what becomes of it. */
final class Finding extends Record
{
    protected $table = 'findings';

    protected $casts = ['found_at' => 'datetime', 'ours' => 'boolean'];
}
