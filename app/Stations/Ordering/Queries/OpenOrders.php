<?php

namespace App\Stations\Ordering\Queries;

use App\Yard\Contracts\Decision;
use App\Yard\Contracts\MoneyFigure;
use App\Yard\Models\Build;
use App\Yard\StationName;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Carbon;

/** Orders that wait to be released, and what the builds in work are worth. */
final class OpenOrders
{
    /** @return list<Decision> */
    public function decisions(): array
    {
        return array_values(Build::query()
            ->join('units', 'units.id', '=', 'builds.unit_id')
            ->join('packages', 'packages.id', '=', 'builds.package_id')
            ->where('builds.state', 'draft')
            ->where('units.station', StationName::Ordering)
            ->orderBy('builds.created_at')
            ->limit(50)
            ->toBase()
            ->get(['builds.price', 'builds.created_at', 'packages.name', 'units.core_tag'])
            ->map(
                fn (\stdClass $b) => new Decision(
                    'release',
                    $b->core_tag,
                    "Order: $b->name, ".number_format((float) $b->price, 2).'.',
                    (new Carbon($b->created_at))->toIso8601ZuluString(),
                    "/units/$b->core_tag/ordering",
                ),
            )
            ->values()
            ->all());
    }

    /** @return list<MoneyFigure> */
    public function money(): array
    {
        $work = Build::query()->whereIn('state', ['released', 'passed']);
        $total = fn (Builder $builds) => $builds
            ->toBase()
            ->selectRaw('COUNT(*) AS n, COALESCE(SUM(price), 0) AS sum')
            ->sole();
        $inWork = $total(clone $work);
        $late = $total($work->whereRelation('unit', 'promised_on', '<', now()->format('Y-m-d')));

        return [
            new MoneyFigure(
                'Builds in work',
                (float) $inWork->sum,
                (int) $inWork->n,
                'released and not shipped',
                '/yard',
            ),
            new MoneyFigure(
                'Promised and late',
                (float) $late->sum,
                (int) $late->n,
                'past the day that was promised',
                '/units?late=1',
            ),
        ];
    }
}
