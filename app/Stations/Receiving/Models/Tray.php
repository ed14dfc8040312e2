<?php

namespace App\Stations\Receiving\Models;

use App\Kernel\Ledger\AccountedRecord;
use App\Yard\Models\Unit;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Support\Carbon;

/**
 * A tagged tray of loose parts.
 *
 * @property int $id
 * @property string $tag
 * @property int|null $unit_id
 * @property string $place
 * @property string $stage  where it is on its round: bench, washer, inspection, shelf
 * @property int|null $moved_by
 * @property Carbon|null $moved_at
 * @property int $version
 * @property Unit|null $unit
 * @property Collection<int, TrayItem> $items
 */
final class Tray extends AccountedRecord
{
    protected $table = 'trays';

    protected $fillable = [
        'tag',
        'unit_id',
        'place',
        'stage',
        'moved_by',
        'moved_at',
        'version',
    ];

    protected $casts = ['moved_at' => 'datetime'];

    /** @return BelongsTo<Unit, $this> */
    public function unit(): BelongsTo
    {
        return $this->belongsTo(Unit::class);
    }

    /** @return HasMany<TrayItem, $this> */
    public function items(): HasMany
    {
        return $this->hasMany(TrayItem::class);
    }

    /**
     * Whether this is what lies in it, in this order.
     *
     * @param  list<array{name: string, count: int, keep_together: string}>  $items
     */
    public function lists(array $items): bool
    {
        return $items ===
            array_values(
                $this->items()
                    ->orderBy('id')
                    ->get()
                    ->map(fn (TrayItem $i) => $i->only(['name', 'count', 'keep_together']))
                    ->all(),
            );
    }
}
