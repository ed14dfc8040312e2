<?php

namespace App\Stations\Teardown\Models;

use App\Kernel\Ledger\AccountedRecord;
use Illuminate\Support\Carbon;

/**
 * A part that a second person graded without knowing the first grade.
 *
 * @property int $id
 * @property int $unit_id
 * @property int $generation
 * @property string $part
 * @property string $part_kind
 * @property string $first_condition
 * @property string $second_condition
 * @property int $first_by
 * @property int $graded_by
 * @property Carbon $graded_at
 */
final class SecondGrade extends AccountedRecord
{
    protected $table = 'second_grades';

    protected $fillable = [
        'unit_id',
        'generation',
        'part',
        'part_kind',
        'first_condition',
        'second_condition',
        'first_by',
        'graded_by',
        'graded_at',
    ];

    protected $casts = ['graded_at' => 'datetime'];
}
