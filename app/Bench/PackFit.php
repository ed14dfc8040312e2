<?php

namespace App\Bench;

use App\Shop\Person;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** The selective parts chosen for a pack and the clearance predicted. */
final class PackFit extends Model
{
    protected $table = 'pack_fits';

    protected $guarded = [];

    public $timestamps = false;

    protected $casts = ['picks' => 'array', 'fitted_at' => 'datetime'];

    public function fitter(): BelongsTo
    {
        return $this->belongsTo(Person::class, 'fitted_by');
    }
}
