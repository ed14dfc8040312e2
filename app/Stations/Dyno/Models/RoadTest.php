<?php

namespace App\Stations\Dyno\Models;

use App\Kernel\Ledger\AccountedRecord;
use Illuminate\Support\Carbon;

/**
 * A build tested without a cell: pressures at the taps of the case, a drive, and who approved of it.
 *
 * @property int $id
 * @property int $build_id
 * @property string $why
 * @property list<array{gear: string, typed: string, kpa: float, min: float, max: float, inside: bool}> $pressures
 * @property list<array{code: string, name: string, right: bool, note: string}> $road
 * @property string $verdict
 * @property string $suspect
 * @property int $approved_by
 * @property Carbon $approved_at
 */
final class RoadTest extends AccountedRecord
{
    protected $table = 'road_tests';

    protected $fillable = [
        'build_id',
        'why',
        'pressures',
        'road',
        'verdict',
        'suspect',
        'approved_by',
        'approved_at',
    ];

    protected $casts = ['pressures' => 'array', 'road' => 'array', 'approved_at' => 'datetime'];
}
