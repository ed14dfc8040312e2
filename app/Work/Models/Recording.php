<?php

namespace App\Work\Models;

use App\Kernel\Ledger\AccountedRecord;
use Illuminate\Support\Carbon;

/**
 * What was said at an operation, as it was spoken.
 *
 * @property int $id
 * @property int $unit_id
 * @property int $generation
 * @property string $bench
 * @property string $operation
 * @property string $path
 * @property string $type
 * @property int $bytes
 * @property string $sha256
 * @property int $spoken_by
 * @property Carbon $spoken_at  by the server's clock
 * @property Carbon|null $tablet_at
 */
final class Recording extends AccountedRecord
{
    protected $table = 'recordings';

    protected $fillable = [
        'unit_id',
        'generation',
        'bench',
        'operation',
        'path',
        'type',
        'bytes',
        'sha256',
        'spoken_by',
        'spoken_at',
        'tablet_at',
    ];

    protected $casts = ['spoken_at' => 'datetime', 'tablet_at' => 'datetime'];
}
