<?php

namespace App\Stations\Dyno\Models;

use App\Kernel\Ledger\AccountedRecord;
use App\Shop\Models\Person;
use App\Yard\Contracts\OfUnit;
use App\Yard\Models\Build;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Support\Carbon;

/**
 * One run on the test rig.
 *
 * @property int $id
 * @property int $build_id
 * @property int $loop_no
 * @property string $state
 * @property array<mixed> $program
 * @property string $specimen
 * @property string $cell
 * @property string $purpose  unit; reference: the cell is told by it, not the unit; foreign: recorded elsewhere
 * @property bool $cancel_requested
 * @property string $progress
 * @property string|null $trace_path
 * @property string|null $trace_sha256
 * @property array<mixed>|null $analysis
 * @property Collection<int, RunCheck> $checks
 * @property string|null $error
 * @property string|null $verdict
 * @property string $verdict_reason
 * @property string $suspect
 * @property int|null $verdict_by
 * @property Carbon|null $verdict_at
 * @property int $started_by
 * @property Carbon $queued_at
 * @property Carbon|null $ended_at
 * @property Build $build
 * @property Person|null $judge
 */
final class Run extends AccountedRecord implements OfUnit
{
    protected $table = 'dyno_runs';

    protected $fillable = [
        'build_id',
        'loop_no',
        'state',
        'program',
        'specimen',
        'cell',
        'purpose',
        'cancel_requested',
        'progress',
        'trace_path',
        'trace_sha256',
        'analysis',
        'error',
        'verdict',
        'verdict_reason',
        'suspect',
        'verdict_by',
        'verdict_at',
        'started_by',
        'queued_at',
        'ended_at',
    ];

    protected const PAPERS = ['program' => [['steps', 'ratios', 'limits', 'reference']]];

    protected $casts = [
        'program' => 'array',
        'analysis' => 'array',
        'queued_at' => 'datetime',
        'ended_at' => 'datetime',
        'verdict_at' => 'datetime',
        'cancel_requested' => 'boolean',
    ];

    /** @return BelongsTo<Build, $this> */
    public function build(): BelongsTo
    {
        return $this->belongsTo(Build::class);
    }

    public function unitId(): int
    {
        return $this->build->unit_id;
    }

    /** @return Builder<self> runs in which units were tested */
    public static function ofUnits(): Builder
    {
        return self::query()->where('purpose', 'unit');
    }

    /** @return Builder<self> analysed runs of the reference unit of a cell */
    public static function references(string $cell): Builder
    {
        return self::query()->where('cell', $cell)->where('purpose', 'reference')->where('state', 'analysed');
    }

    /** @return HasMany<RunCheck, $this> */
    public function checks(): HasMany
    {
        return $this->hasMany(RunCheck::class)->orderBy('position');
    }

    /** @return BelongsTo<Person, $this> */
    public function judge(): BelongsTo
    {
        return $this->belongsTo(Person::class, 'verdict_by');
    }
}
