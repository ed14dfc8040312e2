<?php

namespace App\Yard\Queries;

use App\Yard\Models\Unit;
use App\Yard\StationName;

/** Where every unit in the house stands: racks with their bays, as one walks past them. */
final class YardPlan
{
    private const SHOWN = 600;

    /**
     * @return array{total: int, racks: list<array{rack: string, bays: list<array{bay: string,
     *     units: list<array<string, mixed>>}>}>}
     */
    public function drawn(): array
    {
        $inHouse = fn () => Unit::query()->whereIn('units.station', StationName::working());
        $racks = [];
        foreach (
            $inHouse()->named()->orderBy('units.rack')->orderBy('units.id')->limit(self::SHOWN)->get() as $unit
        ) {
            [$rack, $bay] = array_pad(explode('-', $unit->rack, 2), 2, '');
            $racks[$rack === '' ? 'floor' : $rack][$bay][] = UnitSummary::of($unit);
        }
        $shown = [];
        foreach ($racks as $rack => $bays) {
            $list = [];
            foreach ($bays as $bay => $units) {
                $list[] = ['bay' => (string) $bay, 'units' => $units];
            }
            $shown[] = ['rack' => (string) $rack, 'bays' => $list];
        }

        return ['total' => $inHouse()->count(), 'racks' => $shown];
    }
}
