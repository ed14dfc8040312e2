<?php

namespace App\Stations\Teardown\Queries;

use App\Stations\Teardown\Models\VehicleCause;
use App\Work\Generation;
use App\Yard\Contracts\WarrantyConditions;
use App\Yard\Models\Unit;

/** Causes in the vehicle that teardown named are conditions of the warranty. */
final class VehicleConditions implements WarrantyConditions
{
    public function of(Unit $unit): array
    {
        return array_values(VehicleCause::query()
            ->where('unit_id', $unit->id)
            ->where('generation', Generation::of($unit, 'teardown'))
            ->orderBy('id')
            ->get()
            ->map(fn (VehicleCause $c): array => [
                'name' => $c->name,
                'condition' => $c->condition,
                'settled' => $c->settled_at === null
                    ? null
                    : "$c->settled_by_name, {$c->settled_at->format('j M Y')}: $c->settled_how",
            ])
            ->all());
    }
}
