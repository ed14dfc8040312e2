<?php

namespace App\Yard\Models;

use App\Kernel\Ledger\AccountedRecord;
use App\Shop\Role;
use App\Yard\Contracts\OfUnit;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * A reason why a unit may not go on, and who may lift it.
 *
 * @property int $id
 * @property int $unit_id
 * @property string $kind
 * @property string $reason
 * @property Role $lift_role
 * @property int $placed_by
 * @property Carbon $placed_at
 * @property int|null $lifted_by
 * @property Carbon|null $lifted_at
 * @property string|null $lift_reason
 * @property Unit $unit
 */
final class Hold extends AccountedRecord implements OfUnit
{
    protected $table = 'holds';

    protected $fillable = [
        'unit_id',
        'kind',
        'reason',
        'lift_role',
        'placed_by',
        'placed_at',
        'lifted_by',
        'lifted_at',
        'lift_reason',
    ];

    protected $casts = ['placed_at' => 'datetime', 'lifted_at' => 'datetime', 'lift_role' => Role::class];

    public function unitId(): int
    {
        return $this->unit_id;
    }

    /** @return BelongsTo<Unit, $this> */
    public function unit(): BelongsTo
    {
        return $this->belongsTo(Unit::class);
    }
}
