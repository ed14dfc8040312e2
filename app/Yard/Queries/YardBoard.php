<?php

namespace App\Yard\Queries;

use App\Yard\Models\Hold;
use App\Yard\Models\Unit;
use App\Yard\StationName;
use Illuminate\Support\Facades\DB;

/** How many units wait, are late and are held at each station, and the oldest of them. */
final class YardBoard
{
    /** @return list<array<string, mixed>> */
    public function stations(): array
    {
        $counts = Unit::query()
            ->selectRaw('station, COUNT(*) AS n')
            ->whereIn('station', StationName::working())
            ->groupBy('station')
            ->pluck('n', 'station');
        $late = Unit::query()
            ->selectRaw('station, COUNT(*) AS n')
            ->whereIn('station', StationName::working())
            ->where('promised_on', '<', now()->format('Y-m-d'))
            ->groupBy('station')
            ->pluck('n', 'station');
        $held = Hold::query()
            ->join('units', 'units.id', '=', 'holds.unit_id')
            ->whereNull('lifted_at')
            ->selectRaw('station, COUNT(DISTINCT unit_id) AS n')
            ->groupBy('station')
            ->pluck('n', 'station');

        $ranked = Unit::query()
            ->selectRaw('id, ROW_NUMBER() OVER (PARTITION BY station ORDER BY station_since, id) AS place')
            ->whereIn('station', StationName::working());
        $oldest = Unit::query()
            ->named()
            ->whereIn('units.id', DB::query()->fromSub($ranked, 'ranked')->where('place', '<=', 6)->select('id'))
            ->orderBy('station_since')
            ->orderBy('units.id')
            ->get()
            ->groupBy(fn (Unit $u) => $u->station->value);

        return array_map(
            fn (StationName $s) => [
                'station' => $s,
                'units' => $counts[$s->value] ?? 0,
                'late' => $late[$s->value] ?? 0,
                'held' => $held[$s->value] ?? 0,
                'oldest' => ($oldest[$s->value] ?? collect())->map(UnitSummary::of(...))->values(),
            ],
            StationName::working(),
        );

    }
}
