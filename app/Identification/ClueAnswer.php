<?php

namespace App\Identification;

use Illuminate\Database\Eloquent\Model;

/** What somebody saw of a feature. */
final class ClueAnswer extends Model
{
    protected $table = 'clue_answers';

    protected $guarded = [];

    public $timestamps = false;

    protected $casts = ['answered_at' => 'datetime'];
}
