<?php

namespace App\Shop\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Support\Carbon;

/**
 * Wrong PINs from one source: a badge on one tablet, a badge on tablets unknown, a tablet, an address.
 *
 * @property string $source
 * @property int $failures
 * @property Carbon $failed_at the last of them
 * @property Carbon|null $locked_until
 */
final class PinCounter extends Model
{
    protected $primaryKey = 'source';

    protected $keyType = 'string';

    public $incrementing = false;

    public $timestamps = false;

    protected $fillable = ['source', 'failures', 'failed_at', 'locked_until'];

    protected $casts = ['failed_at' => 'datetime', 'locked_until' => 'datetime'];
}
