<?php

namespace App\Work\Models;

use App\Kernel\Ledger\AccountedRecord;
use Illuminate\Support\Carbon;

/**
 * A guided step that was done, with what was counted.
 *
 * @property int $id
 * @property int $unit_id
 * @property int $generation
 * @property string $phase
 * @property string $step
 * @property array<mixed> $counts
 * @property string $note
 * @property int $done_by
 * @property Carbon $done_at
 */
final class StepMark extends AccountedRecord
{
    protected $table = 'step_marks';

    protected $fillable = [
        'unit_id',
        'generation',
        'phase',
        'step',
        'counts',
        'note',
        'done_by',
        'done_at',
    ];

    protected $casts = ['counts' => 'array', 'done_at' => 'datetime'];
}
