<?php

namespace App\Stations\Dispatch\Queries;

use App\Catalog\Models\Vocabulary;
use App\Shop\Queries\PeopleNames;
use App\Stations\Dispatch\Models\Commissioning;
use App\Stations\Dispatch\Models\Shipment;
use App\Work\Bench;
use App\Work\Queries\BenchShown;
use App\Work\Queries\BenchWork;
use App\Yard\Contracts\Section;
use App\Yard\Gate;
use App\Yard\Gatekeeper;
use App\Yard\Models\Unit;
use App\Yard\StationName;

final class DispatchSection implements Section
{
    public function __construct(
        private readonly DeliverySheet $sheet,
        private readonly PeopleNames $names,
        private readonly Gatekeeper $gate,
        private readonly BenchShown $bench,
    ) {
    }

    public function has(Unit $unit): bool
    {
        return $unit->station === StationName::Dispatch ||
            in_array($unit->currentBuild?->state, ['shipped', 'returned'], true);
    }

    public function of(Unit $unit): ?array
    {
        $build = $unit->currentBuild;
        if ($build === null || ! in_array($build->state, ['released', 'passed', 'shipped', 'returned'], true)) {
            return null;
        }
        $shipment = Shipment::query()->with('customer:id,code,name')->where('build_id', $build->id)->first();
        if ($shipment === null && $unit->station !== StationName::Dispatch) {
            return null;
        }
        $commissioning = Commissioning::query()->where('build_id', $build->id)->first();

        return [
            'sheet' => $shipment->sheet ?? $this->sheet->of($build->loadMissing('unit')),
            'shipped' => $shipment === null
                    ? null
                    : [
                        'customer' => $shipment->customer?->name,
                        'carrier' => $shipment->carrier,
                        'by' => $this->names->of($shipment->shipped_by),
                        'at' => $shipment->shipped_at->toIso8601ZuluString(),
                        'warrantyUntil' => $shipment->warranty_until,
                        'warrantyKm' => $shipment->warranty_km,
                    ],
            'blockers' => $unit->station === StationName::Dispatch ? $this->gate->blockers($unit, Gate::Ship) : [],
            'work' => $this->bench->of(BenchWork::of($unit, Bench::Dispatch)),
            'commissioningItems' => Vocabulary::body('installation')->items,
            'commissioning' => $commissioning === null
                    ? null
                    : [
                        'installedOn' => $commissioning->installed_on,
                        'odometerKm' => $commissioning->odometer_km,
                        'installer' => $commissioning->installer,
                        'items' => $commissioning->items,
                        'depth' => $commissioning->depth,
                    ],
        ];
    }
}
