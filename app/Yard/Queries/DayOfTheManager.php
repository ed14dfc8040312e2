<?php

namespace App\Yard\Queries;

use App\Yard\Contracts\Decision;
use App\Yard\Contracts\ManagersDay;
use App\Yard\Models\Unit;
use App\Yard\Rooms;
use App\Yard\StationName;

/** The manager's first page: what waits for a decision, what is late, what came back, what money hangs on it. */
final class DayOfTheManager
{
    private const SHOWN = 12;

    /** @return array<string, mixed> */
    public function today(): array
    {
        $decisions = $money = [];
        foreach (Rooms::all() as $room) {
            if (is_subclass_of($room, ManagersDay::class)) {
                array_push($decisions, ...app($room)->decisions());
                array_push($money, ...app($room)->moneyAtRisk());
            }
        }
        usort($decisions, fn (Decision $a, Decision $b) => $a->since <=> $b->since);
        $back = array_values(array_filter($decisions, fn (Decision $d) => $d->kind === 'return'));
        $late = fn () => Unit::query()
            ->whereNotIn('units.station', [StationName::Field, StationName::Closed])
            ->where('units.promised_on', '<', now()->format('Y-m-d'));

        return [
            'decisions' => array_values(array_filter($decisions, fn (Decision $d) => $d->kind !== 'return')),
            'back' => $back,
            'late' => [
                'total' => $late()->count(),
                'units' => $late()
                    ->named()
                    ->orderBy('units.promised_on')
                    ->orderBy('units.id')
                    ->limit(self::SHOWN)
                    ->get()
                    ->map(UnitSummary::of(...)),
            ],
            'money' => $money,
        ];
    }
}
