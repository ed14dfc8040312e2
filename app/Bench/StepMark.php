<?php

namespace App\Bench;

use App\Shop\Person;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** A guided step that was done, with what was counted. */
final class StepMark extends Model
{
    protected $table = 'step_marks';

    protected $guarded = [];

    public $timestamps = false;

    protected $casts = ['counts' => 'array', 'done_at' => 'datetime'];

    public function doer(): BelongsTo
    {
        return $this->belongsTo(Person::class, 'done_by');
    }
}
