<?php

namespace App\Stations\Teardown\Models;

use App\Kernel\Ledger\AccountedRecord;
use Illuminate\Support\Carbon;

/**
 * A part of another unit that is aboard for a test or the transport only, and must not ship with this one.
 *
 * @property int $id
 * @property int $unit_id
 * @property string $name
 * @property string $origin
 * @property string $reason
 * @property int $fitted_by
 * @property Carbon $fitted_at
 * @property int|null $out_by
 * @property Carbon|null $out_at
 */
final class LoanPart extends AccountedRecord
{
    protected $table = 'loan_parts';

    protected $fillable = ['unit_id', 'name', 'origin', 'reason', 'fitted_by', 'fitted_at', 'out_by', 'out_at'];

    protected $casts = ['fitted_at' => 'datetime', 'out_at' => 'datetime'];
}
