<?php

namespace App\Stations\Returns\Queries;

use App\Stations\Returns\Models\UnitReturn;
use App\Yard\Contracts\Decision;
use App\Yard\Contracts\MoneyFigure;

/** Returns nobody has decided yet. */
final class OpenReturns
{
    /** @return list<Decision> */
    public function decisions(): array
    {
        return array_values(UnitReturn::query()
            ->with('unit:id,core_tag')
            ->whereNull('verdict')
            ->orderBy('opened_at')
            ->limit(50)
            ->get()
            ->map(
                fn (UnitReturn $r) => new Decision(
                    'return',
                    $r->unit->core_tag,
                    "$r->number: $r->complaint",
                    $r->opened_at->toIso8601ZuluString(),
                    "/units/{$r->unit->core_tag}/returns",
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
