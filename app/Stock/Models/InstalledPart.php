<?php

namespace App\Stock\Models;

use App\Kernel\Record;
use App\Yard\Models\Build;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Facades\DB;

/** A part in a build: where it came from and since when. */
final class InstalledPart extends Record
{
    /**
     * What stands in a build now, in one query: a card is read often.
     *
     * @return list<\stdClass> part, name, count, place, origin, lot, serial
     */
    public static function inBuild(int $build): array
    {
        return DB::table('installed_parts AS i')
            ->join('parts AS p', 'p.id', '=', 'i.part_id')
            ->leftJoin('stock_lots AS l', 'l.id', '=', 'i.lot_id')
            ->where('i.build_id', $build)
            ->whereNull('i.removed_at')
            ->orderBy('i.id')
            ->get(['p.number AS part', 'p.name', 'i.count', 'i.place', 'i.origin', 'l.lot', 'i.serial'])
            ->all();
    }

    protected $table = 'installed_parts';

    protected $casts = ['fitted_at' => 'datetime'];

    public function build(): BelongsTo
    {
        return $this->belongsTo(Build::class);
    }
}
