<?php

namespace App\Stations\Teardown\Queries;

use App\Work\Bench;
use Illuminate\Support\Facades\DB;

/** What operations of a family took the last times, beside what its list says. */
final class LearnedHours
{
    /** Units looked back at. */
    private const UNITS = 40;

    /** Fewer than this many say nothing. */
    private const LEAST = 5;

    private const SECONDS_AN_HOUR = 3600;

    /** @return array<string, array{n: int, hours: float}> median by code of the operation */
    public function of(int $familyId, Bench $bench): array
    {
        $units = DB::table('units')->where('family_id', $familyId)->orderByDesc('id')->limit(self::UNITS)->pluck('id');
        $rows = DB::table('operations')
            ->whereIn('unit_id', $units)
            ->where('bench', $bench->value)
            ->where('state', 'done')
            ->where('worked_s', '>', 0)
            ->get(['code', 'worked_s']);
        $learned = [];
        foreach ($rows->groupBy('code') as $code => $of) {
            if ($of->count() >= self::LEAST) {
                $hours = round((float) $of->median('worked_s') / self::SECONDS_AN_HOUR, 2);
                $learned[(string) $code] = ['n' => $of->count(), 'hours' => $hours];
            }
        }

        return $learned;
    }
}
