<?php

namespace App\Stations\Assembly\Models;

use App\Kernel\Ledger\AccountedRecord;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Support\Carbon;

/**
 * The selective parts chosen for a pack and the clearance predicted.
 *
 * @property int $id
 * @property int $build_id
 * @property string $pack
 * @property string $depth
 * @property string $unit
 * @property Collection<int, PackFitPick> $picks
 * @property string $predicted
 * @property int $fitted_by
 * @property Carbon $fitted_at
 * @property string|null $undone_at
 */
final class PackFit extends AccountedRecord
{
    protected $table = 'pack_fits';

    protected $fillable = [
        'build_id',
        'pack',
        'depth',
        'unit',
        'predicted',
        'fitted_by',
        'fitted_at',
        'undone_at',
    ];

    protected $casts = ['fitted_at' => 'datetime'];

    /** @return HasMany<PackFitPick, $this> */
    public function picks(): HasMany
    {
        return $this->hasMany(PackFitPick::class)->orderBy('position');
    }
}
