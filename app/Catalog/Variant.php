<?php

namespace App\Catalog;

use App\Shop\KeepsDecodedJson;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** One exact unit variant with the clues expected of it. */
final class Variant extends Model
{
    use KeepsDecodedJson;

    protected $table = 'variants';

    protected $guarded = [];

    public $timestamps = false;

    protected $casts = ['expect' => 'array', 'hardware' => 'array'];

    public function family(): BelongsTo
    {
        return $this->belongsTo(Family::class);
    }
}
