<?php

namespace App\Cell;

use App\Shop\KeepsDecodedJson;
use App\Shop\Person;
use App\Track\Build;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** One run on the test rig. */
final class Run extends Model
{
    use KeepsDecodedJson;

    protected $table = 'dyno_runs';

    protected $guarded = [];

    public $timestamps = false;

    protected $casts = ['program' => 'array', 'analysis' => 'array', 'checks' => 'array', 'queued_at' => 'datetime', 'ended_at' => 'datetime', 'verdict_at' => 'datetime', 'cancel_requested' => 'boolean'];

    public function build(): BelongsTo
    {
        return $this->belongsTo(Build::class);
    }

    public function judge(): BelongsTo
    {
        return $this->belongsTo(Person::class, 'verdict_by');
    }
}
