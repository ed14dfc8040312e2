<?php

namespace App\Stations\Teardown\Models;

use App\Kernel\Ledger\AccountedRecord;
use Illuminate\Support\Carbon;

/**
 * A picture of the shop's own that shows what a condition looks like on a kind of part.
 *
 * @property int $id
 * @property string $part_kind
 * @property string $condition
 * @property int $photo_id
 * @property int $chosen_by
 * @property Carbon $chosen_at
 */
final class ReferencePicture extends AccountedRecord
{
    protected $table = 'reference_pictures';

    protected $fillable = ['part_kind', 'condition', 'photo_id', 'chosen_by', 'chosen_at'];

    protected $casts = ['chosen_at' => 'datetime'];
}
