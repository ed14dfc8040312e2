<?php

namespace App\Stations\Dyno\Queries;

use App\Stations\Dyno\Models\Run;
use App\Stations\Dyno\Models\RunCheck;
use Illuminate\Support\Facades\DB;

/** Where the numbers of a run lie beside the last runs of the same variant that passed. */
final class GoodRuns
{
    private const RUNS = 60;

    /** Fewer say nothing. */
    private const LEAST = 5;

    /** @return list<array{check: string, where: string, low: float, high: float, runs: int}> eight of ten between */
    public static function beside(Run $run): array
    {
        $runs = DB::table('dyno_runs AS r')
            ->join('builds AS b', 'b.id', '=', 'r.build_id')
            ->join('units AS u', 'u.id', '=', 'b.unit_id')
            ->where('u.variant_id', $run->build->unit->variant_id)
            ->where('r.verdict', 'pass')
            ->where('r.purpose', 'unit')
            ->where('r.id', '<>', $run->id)
            ->orderByDesc('r.id')
            ->limit(self::RUNS)
            ->pluck('r.id');
        if ($runs->count() < self::LEAST) {
            return [];
        }
        $good = RunCheck::query()
            ->whereIn('run_id', $runs)
            ->whereNotNull('value')
            ->where('unit', '<>', 'inside')
            ->where('pass', true)
            ->toBase()
            ->get(['name', 'place', 'value'])
            ->groupBy(fn (\stdClass $c): string => "$c->name\n$c->place");
        $bands = [];
        foreach ($good as $checks) {
            $values = $checks->map(fn (\stdClass $c): float => (float) $c->value)->sort()->values();
            if ($values->count() >= self::LEAST) {
                $at = fn (float $share): float => (float) $values[(int) round($share * ($values->count() - 1))];
                $first = $checks->firstOrFail();
                $bands[] = ['check' => $first->name, 'where' => $first->place] +
                    ['low' => $at(0.1), 'high' => $at(0.9), 'runs' => $values->count()];
            }
        }

        return $bands;
    }
}
