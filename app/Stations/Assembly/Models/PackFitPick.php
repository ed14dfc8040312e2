<?php

namespace App\Stations\Assembly\Models;

use App\Catalog\Models\Part;
use App\Kernel\Ledger\AccountedRecord;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * A selective part chosen for a place of a stack.
 *
 * @property int $id
 * @property int $pack_fit_id
 * @property int $position
 * @property string $slot
 * @property int $part_id
 * @property int $count
 * @property Part $part
 */
final class PackFitPick extends AccountedRecord
{
    protected $table = 'pack_fit_picks';

    protected $fillable = ['pack_fit_id', 'position', 'slot', 'part_id', 'count'];

    /** @return BelongsTo<Part, $this> */
    public function part(): BelongsTo
    {
        return $this->belongsTo(Part::class);
    }
}
