<?php

namespace App\Yard\Queries;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Tally;
use App\Shop\Models\Person;
use App\Shop\Queries\PeopleNames;
use App\Yard\Models\Hold;
use App\Yard\Models\Unit;
use App\Yard\StationName;
use Illuminate\Database\Eloquent\Collection;

/**
 * What waits at one station, promised first, then longest there: what is mine, what is next, what is held and by whom.
 */
final class StationQueue
{
    private const SHOWN = 24;

    public function __construct(private readonly PeopleNames $names)
    {
    }

    /** @return array{station: StationName, total: int, units: list<array<string, mixed>>} */
    public function of(StationName $station, Person $for): array
    {
        $units = Unit::query()
            ->named()
            ->where('units.station', $station)
            ->orderByRaw('units.promised_on IS NULL, units.promised_on, units.station_since, units.id')
            ->limit(self::SHOWN)
            ->get();
        $holds = Hold::query()
            ->whereIn('unit_id', $units->modelKeys())
            ->whereNull('lifted_at')
            ->get()
            ->keyBy('unit_id');
        $touched = Ledger::lastTouched($units->modelKeys());

        return [
            'station' => $station,
            'total' => Tally::of("units:$station->value"),
            'units' => $this->rows($units, $holds, $touched, $for),
        ];
    }

    /**
     * @param  Collection<int, Unit>  $units
     * @param  Collection<int, Hold>  $holds  by unit
     * @param  array<int, array{badge: ?string, at: string}>  $touched  by unit
     * @return list<array<string, mixed>>
     */
    private function rows(Collection $units, Collection $holds, array $touched, Person $for): array
    {
        $badges = $this->names->byBadge();
        $rows = [];
        foreach ($units as $unit) {
            $hold = $holds->get($unit->id);
            $last = $touched[$unit->id] ?? null;
            $here = $last !== null && $last['at'] > $unit->station_since->addSecond()->format('Y-m-d H:i:s');
            $rows[] = UnitSummary::of($unit) + [
                'hold' => $hold === null
                        ? null
                        : [
                            'reason' => $hold->reason,
                            'liftRole' => $hold->lift_role,
                            'by' => $this->names->of($hold->placed_by),
                        ],
                'begunBy' => $here ? $badges[$last['badge']] ?? $last['badge'] : null,
                'mine' => $here && $last['badge'] === $for->badge,
            ];
        }

        return $rows;
    }
}
