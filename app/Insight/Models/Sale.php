<?php

namespace App\Insight\Models;

use Illuminate\Database\Eloquent\Model;

/** What a build of a variant was sold for, and when. */
final class Sale extends Model
{
    public $timestamps = false;

    public $incrementing = false;

    protected $fillable = ['variant_id', 'shipped_at', 'build_id', 'price'];
}
