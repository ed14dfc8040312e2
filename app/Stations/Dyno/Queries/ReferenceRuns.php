<?php

namespace App\Stations\Dyno\Queries;

use App\Stations\Dyno\Models\ReferenceUnit;
use App\Stations\Dyno\Models\Run;
use App\Stations\Dyno\Models\RunCheck;
use Yard\Core\Dyno\RigDrift;
use Yard\Core\Dyno\RigReadings;

/**
 * What the runs of a reference unit read of its cell.
 *
 * @phpstan-import-type Reading from RigDrift
 */
final class ReferenceRuns
{
    /** Of the runs after the first, so many stand on a chart. */
    private const LAST = 60;

    /** @return list<int> the first runs, which say what is usual, and the last ones; oldest first */
    public static function of(ReferenceUnit $unit, ?int $before = null): array
    {
        $ids = Run::references($unit->cell)
            ->where('build_id', $unit->build_id)
            ->where('queued_at', '>=', $unit->kept_at)
            ->when($before !== null, fn ($q) => $q->where('id', '<', $before))
            ->orderBy('id')
            ->pluck('id')
            ->all();

        return array_values(array_unique([
            ...array_slice($ids, 0, RigDrift::MOST),
            ...array_slice($ids, -self::LAST),
        ]));
    }

    /**
     * @param  list<int>  $runs
     * @return list<list<Reading>> run by run
     */
    public static function readings(array $runs): array
    {
        $checks = RunCheck::query()
            ->whereIn('run_id', $runs)
            ->whereIn('name', RigReadings::CHECKS)
            ->orderBy('run_id')
            ->orderBy('position')
            ->get()
            ->groupBy('run_id');

        return array_map(fn (int $run): array => array_values(
            $checks->get($run)?->map(self::reading(...))->all() ?? [],
        ), $runs);
    }

    /** @return Reading */
    private static function reading(RunCheck $check): array
    {
        return [
            'key' => "$check->name, $check->place",
            'check' => $check->name,
            'where' => $check->place,
            'unit' => $check->unit,
            'value' => $check->value,
        ];
    }
}
