<?php

namespace App\Stations\Teardown\Models;

use App\Kernel\Ledger\AccountedRecord;
use Illuminate\Support\Carbon;

/**
 * What was found on a part and what becomes of it.
 *
 * @property int $id
 * @property int $unit_id
 * @property int $generation
 * @property string $part
 * @property string $condition
 * @property string $disposition
 * @property string $role
 * @property bool $ours
 * @property string $note
 * @property int $found_by
 * @property Carbon $found_at
 * @property int $version
 */
final class Finding extends AccountedRecord
{
    protected $table = 'findings';

    protected $fillable = [
        'unit_id',
        'generation',
        'part',
        'condition',
        'disposition',
        'role',
        'ours',
        'note',
        'found_by',
        'found_at',
        'version',
    ];

    protected $casts = ['found_at' => 'datetime', 'ours' => 'boolean'];
}
