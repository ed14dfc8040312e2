<?php

namespace App\Stations\Dispatch\Models;

use App\Kernel\Ledger\AccountedRecord;
use Illuminate\Support\Carbon;

/**
 * What the installer did and measured; the warranty starts with it.
 *
 * @property int $id
 * @property int $build_id
 * @property string $installed_on
 * @property int $odometer_km
 * @property array<mixed> $items
 * @property array<mixed> $depth
 * @property string $installer
 * @property int $recorded_by
 * @property Carbon $recorded_at
 */
final class Commissioning extends AccountedRecord
{
    protected $table = 'commissionings';

    protected $fillable = [
        'build_id',
        'installed_on',
        'odometer_km',
        'items',
        'depth',
        'installer',
        'recorded_by',
        'recorded_at',
    ];

    protected $casts = ['items' => 'array', 'depth' => 'array', 'recorded_at' => 'datetime'];
}
