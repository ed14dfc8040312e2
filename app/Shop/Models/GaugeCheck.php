<?php

namespace App\Shop\Models;

use App\Kernel\Record;
use Illuminate\Support\Carbon;

/**
 * A gauge was held against a standard.
 *
 * @property int $id
 * @property int $gauge_id
 * @property 'good'|'bad' $result
 * @property string|null $next_due
 * @property string $note
 * @property int $checked_by
 * @property Carbon $checked_at
 */
final class GaugeCheck extends Record
{
    protected $table = 'gauge_checks';

    protected $fillable = ['gauge_id', 'result', 'next_due', 'note', 'checked_by', 'checked_at'];

    protected $casts = ['checked_at' => 'datetime'];
}
