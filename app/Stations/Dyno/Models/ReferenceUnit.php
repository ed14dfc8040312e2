<?php

namespace App\Stations\Dyno\Models;

use App\Kernel\Ledger\AccountedRecord;
use App\Yard\Contracts\OfUnit;
use App\Yard\Models\Build;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * A unit that stays in the house so that a cell can be told by it: what it gives does not change, what the cell shows
 * may.
 *
 * @property int $id
 * @property string $cell
 * @property int $build_id
 * @property int $kept_by
 * @property Carbon $kept_at
 * @property int|null $released_by
 * @property Carbon|null $released_at
 * @property Build $build
 */
final class ReferenceUnit extends AccountedRecord implements OfUnit
{
    protected $table = 'reference_units';

    protected $fillable = ['cell', 'build_id', 'kept_by', 'kept_at', 'released_by', 'released_at'];

    protected $casts = ['kept_at' => 'datetime', 'released_at' => 'datetime'];

    /** @return BelongsTo<Build, $this> */
    public function build(): BelongsTo
    {
        return $this->belongsTo(Build::class);
    }

    public function unitId(): int
    {
        return $this->build->unit_id;
    }

    public static function of(string $cell): ?self
    {
        return self::query()->where('cell', $cell)->whereNull('released_at')->first();
    }
}
