<?php

namespace App\Stations\Teardown\Models;

use App\Kernel\Ledger\AccountedRecord;
use Illuminate\Support\Carbon;

/**
 * A customer lets one hard part of their own unit go.
 *
 * @property int $id
 * @property int $unit_id
 * @property string $part  of the inspection list
 * @property string $agreed_by
 * @property string $how
 * @property int $recorded_by
 * @property Carbon $recorded_at
 */
final class SwapAgreement extends AccountedRecord
{
    protected $table = 'swap_agreements';

    protected $fillable = ['unit_id', 'part', 'agreed_by', 'how', 'recorded_by', 'recorded_at'];

    protected $casts = ['recorded_at' => 'datetime'];
}
