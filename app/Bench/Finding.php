<?php

namespace App\Bench;

use App\Shop\Person;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** What was found on a part and what becomes of it. */
final class Finding extends Model
{
    protected $table = 'findings';

    protected $guarded = [];

    public $timestamps = false;

    protected $casts = ['found_at' => 'datetime', 'ours' => 'boolean'];

    public function finder(): BelongsTo
    {
        return $this->belongsTo(Person::class, 'found_by');
    }
}
