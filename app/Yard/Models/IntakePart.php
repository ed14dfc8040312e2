<?php

namespace App\Yard\Models;

use App\Catalog\Models\Part;
use App\Kernel\Ledger\AccountedRecord;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * A part a core came without, or with it ruined.
 *
 * @property int $id
 * @property int $unit_id
 * @property string $kind
 * @property int $position
 * @property int $part_id
 * @property int $count
 * @property Part $part
 */
final class IntakePart extends AccountedRecord
{
    protected $table = 'intake_parts';

    protected $fillable = ['unit_id', 'kind', 'position', 'part_id', 'count'];

    /** @return BelongsTo<Part, $this> */
    public function part(): BelongsTo
    {
        return $this->belongsTo(Part::class);
    }
}
