<?php

namespace App\Stations\Identification\Models;

use App\Kernel\Record;

/** What somebody saw of a feature. */
final class ClueAnswer extends Record
{
    protected $table = 'clue_answers';

    protected $casts = ['answered_at' => 'datetime'];
}
