<?php

namespace App\Stations\Identification\Models;

use App\Catalog\Models\Variant;
use App\Kernel\Ledger\AccountedRecord;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * A decision which variant a core is, with the posterior at that time.
 *
 * @property int $id
 * @property int $unit_id
 * @property string $outcome
 * @property int|null $variant_id
 * @property string|null $posterior
 * @property bool $mixed
 * @property array<mixed> $foreign_parts
 * @property array<mixed> $answers
 * @property string $note
 * @property int $decided_by
 * @property Carbon $decided_at
 * @property Variant|null $variant
 */
final class Identification extends AccountedRecord
{
    protected $table = 'identifications';

    protected $fillable = [
        'unit_id',
        'outcome',
        'variant_id',
        'posterior',
        'mixed',
        'foreign_parts',
        'answers',
        'note',
        'decided_by',
        'decided_at',
    ];

    protected $casts = [
        'foreign_parts' => 'array',
        'answers' => 'array',
        'decided_at' => 'datetime',
        'mixed' => 'boolean',
    ];

    /** @return BelongsTo<Variant, $this> */
    public function variant(): BelongsTo
    {
        return $this->belongsTo(Variant::class);
    }
}
