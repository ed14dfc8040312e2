<?php

namespace App\Bench;

use Illuminate\Database\Eloquent\Model;

/** A guided step that was done, with what was counted. */
final class StepMark extends Model
{
    protected $table = 'step_marks';

    protected $guarded = [];

    public $timestamps = false;

    protected $casts = ['counts' => 'array', 'done_at' => 'datetime'];
}
