<?php

namespace App\Bench;

use App\Shop\Person;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** Somebody signs for a place in the build. */
final class SignOff extends Model
{
    protected $table = 'sign_offs';

    protected $guarded = [];

    public $timestamps = false;

    protected $casts = ['signed_at' => 'datetime'];

    public function signer(): BelongsTo
    {
        return $this->belongsTo(Person::class, 'signed_by');
    }
}
