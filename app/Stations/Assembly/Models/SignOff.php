<?php

namespace App\Stations\Assembly\Models;

use App\Kernel\Ledger\AccountedRecord;
use Illuminate\Support\Carbon;

/**
 * Somebody signs for a place in the build.
 *
 * @property int $id
 * @property int $build_id
 * @property string $what
 * @property int $loop_no
 * @property int $nth  of the same in one loop: what was undone is signed for again
 * @property int $signed_by
 * @property Carbon $signed_at
 */
final class SignOff extends AccountedRecord
{
    protected $table = 'sign_offs';

    protected $fillable = [
        'build_id',
        'what',
        'loop_no',
        'nth',
        'signed_by',
        'signed_at',
    ];

    protected $casts = ['signed_at' => 'datetime'];
}
