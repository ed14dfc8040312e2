<?php

namespace App\Stations\Teardown\Models;

use App\Kernel\Ledger\AccountedRecord;
use Illuminate\Support\Carbon;

/**
 * Work beyond the order that the customer is asked about.
 *
 * @property int $id
 * @property int $unit_id
 * @property int $generation
 * @property string $text
 * @property string $hours
 * @property string $price
 * @property 'approved'|'declined'|null $answer
 * @property string $answered_by
 * @property string $how
 * @property int $asked_by
 * @property Carbon $asked_at
 * @property int|null $recorded_by
 * @property Carbon|null $recorded_at
 */
final class ExtraWork extends AccountedRecord
{
    protected $table = 'extra_works';

    protected $fillable = [
        'unit_id',
        'generation',
        'text',
        'hours',
        'price',
        'answer',
        'answered_by',
        'how',
        'asked_by',
        'asked_at',
        'recorded_by',
        'recorded_at',
    ];

    protected $casts = ['asked_at' => 'datetime', 'recorded_at' => 'datetime'];
}
