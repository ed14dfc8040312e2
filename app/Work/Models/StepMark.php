<?php

namespace App\Work\Models;

use App\Kernel\Record;

/** A guided step that was done, with what was counted. */
final class StepMark extends Record
{
    protected $table = 'step_marks';

    protected $casts = ['counts' => 'array', 'done_at' => 'datetime'];
}
