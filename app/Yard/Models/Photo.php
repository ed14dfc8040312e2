<?php

namespace App\Yard\Models;

use App\Kernel\Ledger\AccountedRecord;
use Illuminate\Support\Carbon;

/**
 * A picture of a unit, re-encoded and without location data.
 *
 * @property int $id
 * @property int $unit_id
 * @property string $place
 * @property string $station
 * @property string $path
 * @property int $width
 * @property int $height
 * @property string $sha256
 * @property int $taken_by
 * @property Carbon $created_at
 */
final class Photo extends AccountedRecord
{
    protected $table = 'photos';

    protected $fillable = [
        'unit_id',
        'place',
        'station',
        'path',
        'width',
        'height',
        'sha256',
        'taken_by',
        'created_at',
    ];

    protected $casts = ['created_at' => 'datetime'];
}
