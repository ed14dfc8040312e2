<?php

namespace App\Yard\Models;

use App\Catalog\Models\Option;
use App\Kernel\Ledger\AccountedRecord;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * An option a customer asked for beside the package, or asked to be left out.
 *
 * @property int $id
 * @property int $build_id
 * @property string $wish
 * @property int $position
 * @property int $option_id
 * @property Option $option
 */
final class OrderOption extends AccountedRecord
{
    protected $table = 'order_options';

    protected $fillable = ['build_id', 'wish', 'position', 'option_id'];

    /** @return BelongsTo<Option, $this> */
    public function option(): BelongsTo
    {
        return $this->belongsTo(Option::class);
    }
}
