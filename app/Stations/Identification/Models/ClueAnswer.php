<?php

namespace App\Stations\Identification\Models;

use App\Kernel\Ledger\AccountedRecord;
use Illuminate\Support\Carbon;

/**
 * What somebody saw of a feature.
 *
 * @property int $id
 * @property int $unit_id
 * @property string $feature
 * @property string $value
 * @property int $answered_by
 * @property Carbon $answered_at
 */
final class ClueAnswer extends AccountedRecord
{
    protected $table = 'clue_answers';

    protected $fillable = [
        'unit_id',
        'feature',
        'value',
        'answered_by',
        'answered_at',
    ];

    protected $casts = ['answered_at' => 'datetime'];
}
