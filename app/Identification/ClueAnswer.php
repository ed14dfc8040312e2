<?php

namespace App\Identification;

use App\Shop\Record;

/** What somebody saw of a feature. */
final class ClueAnswer extends Record
{
    protected $table = 'clue_answers';

    protected $casts = ['answered_at' => 'datetime'];
}
