<?php

namespace App\Stock\Models;

use App\Catalog\Models\Part;
use App\Kernel\Ledger\AccountedRecord;
use App\Yard\Models\Build;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * Pieces on the shelf that are kept for one place of a build.
 *
 * @property int $id
 * @property int $build_id
 * @property string $place
 * @property int $part_id
 * @property int $count
 * @property int $held_by
 * @property Carbon $held_at
 * @property Carbon|null $released_at  fitted, or given back
 * @property Part $part
 */
final class HeldPart extends AccountedRecord
{
    protected $table = 'held_parts';

    protected $fillable = [
        'build_id',
        'place',
        'part_id',
        'count',
        'held_by',
        'held_at',
        'released_at',
    ];

    protected $casts = ['held_at' => 'datetime', 'released_at' => 'datetime'];

    /** @return BelongsTo<Part, $this> */
    public function part(): BelongsTo
    {
        return $this->belongsTo(Part::class);
    }

    /** @return Builder<self> what is kept for a place of a build now */
    public static function for(Build $build, string $place): Builder
    {
        return self::query()->where('build_id', $build->id)->where('place', $place)->whereNull('released_at');
    }

    public static function release(Build $build, string $place): int
    {
        $held = self::for($build, $place)->get();
        $held->each(fn (self $h) => $h->update(['released_at' => now()]));

        return $held->count();
    }
}
