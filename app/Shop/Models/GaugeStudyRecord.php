<?php

namespace App\Shop\Models;

use App\Kernel\Record;
use Illuminate\Support\Carbon;

/**
 * What a study found of a gauge and the people at it, with the readings it rests on.
 *
 * @property int $id
 * @property int $gauge_id
 * @property string $unit
 * @property list<list<list<float>>> $readings  by person, part and trial
 * @property string $repeatability
 * @property string $reproducibility
 * @property string $part_spread
 * @property int $categories
 * @property int $studied_by
 * @property Carbon $studied_at
 */
final class GaugeStudyRecord extends Record
{
    protected $table = 'gauge_studies';

    protected $fillable = [
        'gauge_id',
        'unit',
        'readings',
        'repeatability',
        'reproducibility',
        'part_spread',
        'categories',
        'studied_by',
        'studied_at',
    ];

    protected $casts = ['readings' => 'array', 'studied_at' => 'datetime'];
}
