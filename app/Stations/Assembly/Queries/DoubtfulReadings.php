<?php

namespace App\Stations\Assembly\Queries;

use App\Shop\Models\Gauge;
use App\Stations\Assembly\Models\Measurement;
use Illuminate\Support\Facades\DB;

/** What a gauge that was found bad has shown since its last good check, and on which units. */
final class DoubtfulReadings
{
    private const MOST = 500;

    /** @return array{from: ?string, to: ?string, total: int, readings: list<array<string, mixed>>} */
    public function of(Gauge $gauge): array
    {
        if ($gauge->doubt_from === null) {
            return ['from' => null, 'to' => null, 'total' => 0, 'readings' => []];
        }
        $doubtful = Measurement::query()
            ->where('gauge_id', $gauge->id)
            ->whereBetween('measured_at', [$gauge->doubt_from, $gauge->doubt_to])
            ->whereNull('undone_at');
        $total = $doubtful->count();
        $rows = DB::table('measurements')
            ->joinSub($doubtful->orderBy('id')->limit(self::MOST)->select('id'), 'd', 'd.id', '=', 'measurements.id')
            ->join('builds', 'builds.id', '=', 'build_id')
            ->join('units', 'units.id', '=', 'builds.unit_id')
            ->orderBy('measurements.id')
            ->get(['core_tag', 'serial', 'station', 'kind', 'code', 'value', 'unit', 'measured_at']);

        return [
            'from' => $gauge->doubt_from->toIso8601ZuluString(),
            'to' => $gauge->doubt_to?->toIso8601ZuluString(),
            'total' => $total,
            'readings' => array_values($rows->map(fn (\stdClass $m): array => [
                'coreTag' => $m->core_tag,
                'serial' => $m->serial,
                'station' => $m->station,
                'kind' => $m->kind,
                'code' => $m->code,
                'value' => (float) $m->value,
                'unit' => $m->unit,
                'at' => str_replace(' ', 'T', $m->measured_at).'Z',
            ])->all()),
        ];
    }
}
