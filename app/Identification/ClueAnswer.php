<?php

namespace App\Identification;

use App\Shop\Person;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** What somebody saw of a feature. */
final class ClueAnswer extends Model
{
    protected $table = 'clue_answers';

    protected $guarded = [];

    public $timestamps = false;

    protected $casts = ['answered_at' => 'datetime'];

    public function answerer(): BelongsTo
    {
        return $this->belongsTo(Person::class, 'answered_by');
    }
}
