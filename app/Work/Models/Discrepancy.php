<?php

namespace App\Work\Models;

use App\Kernel\Ledger\AccountedRecord;
use App\Work\Decision;
use Illuminate\Support\Carbon;

/**
 * More or fewer than there should be; it stands open until somebody says what became of it.
 *
 * @property int $id
 * @property int $unit_id
 * @property int $generation
 * @property string $bench
 * @property string $operation
 * @property string $proof
 * @property string $what
 * @property int $expected
 * @property int $counted
 * @property string $note
 * @property int $counted_by
 * @property Carbon $counted_at
 * @property Decision|null $decision
 * @property string $decision_note
 * @property int|null $decided_by
 * @property Carbon|null $decided_at
 * @property Carbon|null $undone_at
 */
final class Discrepancy extends AccountedRecord
{
    /** Stands for the operation where the pieces of a part on the inspection list do not make it whole. */
    public const INSPECTION = 'inspection';

    protected $table = 'discrepancies';

    protected $fillable = [
        'unit_id',
        'generation',
        'bench',
        'operation',
        'proof',
        'what',
        'expected',
        'counted',
        'note',
        'counted_by',
        'counted_at',
        'decision',
        'decision_note',
        'decided_by',
        'decided_at',
        'undone_at',
    ];

    protected $casts = [
        'decision' => Decision::class,
        'counted_at' => 'datetime',
        'decided_at' => 'datetime',
        'undone_at' => 'datetime',
    ];

    public function said(): string
    {
        return $this->operation === self::INSPECTION
            ? "pieces of the part \"$this->what\" are not found"
            : "$this->counted $this->what where there should be $this->expected";
    }
}
