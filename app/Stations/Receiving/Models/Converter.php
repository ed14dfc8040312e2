<?php

namespace App\Stations\Receiving\Models;

use App\Kernel\Ledger\AccountedRecord;
use App\Yard\Models\Unit;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * A torque converter: its own serial and core value.
 *
 * @property int $id
 * @property string $serial
 * @property int|null $core_unit_id
 * @property int|null $fitted_build_id
 * @property string $state
 * @property string $stall_class
 * @property string $lockup
 * @property string $hub
 * @property string $core_value
 * @property string $note
 * @property Unit|null $coreUnit
 */
final class Converter extends AccountedRecord
{
    protected $table = 'converters';

    protected $fillable = [
        'serial',
        'core_unit_id',
        'fitted_build_id',
        'state',
        'stall_class',
        'lockup',
        'hub',
        'core_value',
        'note',
    ];

    /** @return BelongsTo<Unit, $this> */
    public function coreUnit(): BelongsTo
    {
        return $this->belongsTo(Unit::class, 'core_unit_id');
    }
}
