<?php

namespace App\Stations\Returns\Queries;

use App\Stations\Returns\Models\UnitReturn;
use App\Yard\Contracts\Decision;
use App\Yard\Contracts\MoneyFigure;
use Illuminate\Support\Carbon;

/** Returns nobody has decided yet. */
final class OpenReturns
{
    /** @return list<Decision> */
    public function decisions(): array
    {
        return array_values(UnitReturn::query()
            ->join('units', 'units.id', '=', 'returns.unit_id')
            ->whereNull('returns.verdict')
            ->orderBy('returns.opened_at')
            ->limit(50)
            ->toBase()
            ->get(['returns.number', 'returns.complaint', 'returns.opened_at', 'units.core_tag'])
            ->map(
                fn (\stdClass $r) => new Decision(
                    'return',
                    $r->core_tag,
                    "$r->number: $r->complaint",
                    (new Carbon($r->opened_at))->toIso8601ZuluString(),
                    "/units/$r->core_tag/returns",
                ),
            )
            ->values()
            ->all());
    }

    /** @return list<MoneyFigure> */
    public function money(): array
    {
        $open = UnitReturn::query()
            ->join('builds', 'builds.id', '=', 'returns.build_id')
            ->whereNull('verdict')
            ->toBase()
            ->selectRaw('COUNT(*) AS n, COALESCE(SUM(builds.price), 0) AS price')
            ->sole();

        return [
            new MoneyFigure(
                'Came back, not decided',
                (float) $open->price,
                (int) $open->n,
                'price of the builds whose return is open',
                '/units?station=returns',
            ),
        ];
    }
}
