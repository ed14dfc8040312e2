<?php

namespace App\Stock;

use App\Catalog\Part;
use App\Track\Build;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** A part in a build: where it came from and since when. */
final class InstalledPart extends Model
{
    protected $table = 'installed_parts';

    protected $guarded = [];

    public $timestamps = false;

    protected $casts = ['fitted_at' => 'datetime'];

    public function part(): BelongsTo
    {
        return $this->belongsTo(Part::class);
    }

    public function lot(): BelongsTo
    {
        return $this->belongsTo(Lot::class);
    }

    public function build(): BelongsTo
    {
        return $this->belongsTo(Build::class);
    }
}
