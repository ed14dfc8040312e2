<?php

namespace App\Stations\Assembly\Queries;

use App\Work\BenchTest;
use App\Work\ReadingKind;
use App\Yard\Models\Build;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/** What a place showed on the last builds of the family that were good. */
final class GoodBuilds
{
    private const BUILDS = 60;

    /** Fewer say nothing. */
    public const LEAST = 5;

    /**
     * @return list<array{code: string, low: float, middle: float, high: float}> eight of ten lie between low and high;
     *     tests with too few good builds are left out
     */
    public function of(Build $build, string $group): array
    {
        $spreads = [];
        foreach (BenchTest::ofGroup($build->frozen(), $group) as $test) {
            $values = self::readings($build, ReadingKind::BenchTest, $test->code);
            if ($values !== null) {
                $at = fn (float $share): float => (float) $values[(int) round($share * ($values->count() - 1))];
                $spreads[] = ['code' => $test->code, 'low' => $at(0.1), 'middle' => $at(0.5), 'high' => $at(0.9)];
            }
        }

        return $spreads;
    }

    /** @return Collection<int, float>|null sorted; null where too few say nothing */
    public static function readings(Build $build, ReadingKind $kind, string $code): ?Collection
    {
        $values = DB::table('measurements')
            ->join('builds', 'builds.id', '=', 'build_id')
            ->join('units', 'units.id', '=', 'builds.unit_id')
            ->where('kind', $kind->value)
            ->where('measurements.code', $code)
            ->where('family_id', $build->unit->family_id)
            ->where('build_id', '<>', $build->id)
            ->where('inside', true)
            ->whereNull('undone_at')
            ->orderByDesc('measurements.id')
            ->limit(self::BUILDS)
            ->pluck('value');

        return $values->count() < self::LEAST
            ? null
            : $values->map(fn (string $v): float => (float) $v)->sort()->values();
    }
}
