<?php

namespace App\Stations\Dyno\Queries;

use App\Stations\Dyno\Models\Run;
use Illuminate\Database\Eloquent\Collection;

/** What a cell let pass since the last reference run in which it was right. */
final class SinceGood
{
    /** So many are named; a cell that is looked at every shift never comes near. */
    private const MOST = 500;

    /**
     * @param  int  $before  a reference run: those before it count
     * @return Collection<int, Run>
     */
    public function passed(string $cell, int $before): Collection
    {
        $good = Run::references($cell)->where('id', '<', $before)->where('verdict', 'pass')->max('id');

        return Run::query()
            ->with('build.unit')
            ->where('cell', $cell)
            ->where('purpose', 'unit')
            ->where('id', '>', $good ?? 0)
            ->where('id', '<', $before)
            ->whereIn('verdict', ['pass', 'conditional'])
            ->orderBy('id')
            ->limit(self::MOST)
            ->get();
    }
}
