<?php

namespace App\Bench;

use Illuminate\Database\Eloquent\Model;

/** What was found on a part and what becomes of it. */
final class Finding extends Model
{
    protected $table = 'findings';

    protected $guarded = [];

    public $timestamps = false;

    protected $casts = ['found_at' => 'datetime', 'ours' => 'boolean'];
}
