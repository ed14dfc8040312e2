<?php

namespace App\Stations\Teardown\Models;

use App\Kernel\Ledger\AccountedRecord;
use Illuminate\Support\Carbon;

/**
 * A cause that lies in the vehicle: told in a letter, and settled before the warranty starts.
 *
 * @property int $id
 * @property int $unit_id
 * @property int $generation
 * @property string $cause
 * @property string $name
 * @property string $letter
 * @property string $condition  what must be done in the vehicle
 * @property string $note
 * @property int $named_by
 * @property Carbon $named_at
 * @property string $settled_by_name
 * @property string $settled_how
 * @property int|null $settled_by
 * @property Carbon|null $settled_at
 */
final class VehicleCause extends AccountedRecord
{
    protected $table = 'vehicle_causes';

    protected $fillable = [
        'unit_id',
        'generation',
        'cause',
        'name',
        'letter',
        'condition',
        'note',
        'named_by',
        'named_at',
        'settled_by_name',
        'settled_how',
        'settled_by',
        'settled_at',
    ];

    protected $casts = ['named_at' => 'datetime', 'settled_at' => 'datetime'];
}
