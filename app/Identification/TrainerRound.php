<?php

namespace App\Identification;

use App\Catalog\Family;
use App\Shop\KeepsDecodedJson;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** One past core dealt to a trainee. */
final class TrainerRound extends Model
{
    use KeepsDecodedJson;

    protected $table = 'trainer_rounds';

    protected $guarded = [];

    public $timestamps = false;

    protected $casts = ['asked' => 'array', 'right_answer' => 'boolean', 'effort' => 'float', 'started_at' => 'datetime', 'ended_at' => 'datetime'];

    public function identification(): BelongsTo
    {
        return $this->belongsTo(Identification::class);
    }

    public function family(): BelongsTo
    {
        return $this->belongsTo(Family::class);
    }
}
