<?php

namespace App\Work\Models;

use App\Kernel\Ledger\AccountedRecord;
use App\Work\OperationState;
use Illuminate\Support\Carbon;

/**
 * One operation of one generation of a unit that somebody has touched.
 *
 * @property int $id
 * @property int $unit_id
 * @property int $generation
 * @property string $bench
 * @property string $code
 * @property OperationState $state
 * @property string $reason  why it jams or was opened again
 * @property string $note
 * @property Carbon|null $running_since
 * @property int $worked_s  before it runs now
 * @property int $done_by  who touched it last
 * @property Carbon $done_at  when, by the server's clock
 * @property Carbon|null $tablet_at  when, by the tablet's
 */
final class WorkedOperation extends AccountedRecord
{
    protected $table = 'operations';

    protected $attributes = ['note' => '', 'reason' => '', 'worked_s' => 0];

    protected $fillable = [
        'unit_id',
        'generation',
        'bench',
        'code',
        'state',
        'reason',
        'note',
        'running_since',
        'worked_s',
        'done_by',
        'done_at',
        'tablet_at',
    ];

    protected $casts = [
        'state' => OperationState::class,
        'running_since' => 'datetime',
        'done_at' => 'datetime',
        'tablet_at' => 'datetime',
    ];

    /** Seconds of work, with what runs now. */
    public function worked(Carbon $at): int
    {
        $running = $this->running_since === null ? 0 : max(0, (int) $this->running_since->diffInSeconds($at, false));

        return $this->worked_s + $running;
    }
}
