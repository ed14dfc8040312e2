<?php

namespace App\Stock\Models;

use App\Kernel\Ledger\AccountedRecord;
use App\Yard\Models\Build;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * A part in a build: where it came from and since when.
 *
 * @property int $id
 * @property int $build_id
 * @property int $part_id
 * @property int|null $lot_id
 * @property string|null $serial
 * @property int $count
 * @property string $origin
 * @property int|null $origin_unit_id
 * @property string $place
 * @property int $fitted_by
 * @property Carbon $fitted_at
 * @property string|null $removed_at
 * @property Build $build
 */
final class InstalledPart extends AccountedRecord
{
    protected $table = 'installed_parts';

    protected $fillable = [
        'build_id',
        'part_id',
        'lot_id',
        'serial',
        'count',
        'origin',
        'origin_unit_id',
        'place',
        'fitted_by',
        'fitted_at',
        'removed_at',
    ];

    protected $casts = ['fitted_at' => 'datetime'];

    /** @return BelongsTo<Build, $this> */
    public function build(): BelongsTo
    {
        return $this->belongsTo(Build::class);
    }
}
