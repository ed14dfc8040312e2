<?php

namespace App\Track;

/** What lists and headers show of a unit. */
final class UnitSummary
{
    /** Relations a list must load beforehand, so that its rows cost no query each. */
    public const WITH = ['family:id,code,name', 'variant:id,code,name', 'jobType:id,code,name,route', 'customer:id,code,name', 'currentBuild:id,unit_id,serial,generation,state,package_id', 'currentBuild.package:id,code,name'];

    /** @return array<string, mixed> */
    public static function of(Unit $unit): array
    {
        return [
            'coreTag' => $unit->core_tag, 'serial' => $unit->currentBuild?->serial, 'generation' => $unit->currentBuild?->generation, 'station' => $unit->station, 'stationSince' => $unit->station_since->toIso8601ZuluString(),
            'rack' => $unit->rack, 'family' => $unit->family?->name, 'variant' => $unit->variant === null ? null : ['code' => $unit->variant->code, 'name' => $unit->variant->name],
            'jobType' => ['code' => $unit->jobType->code, 'name' => $unit->jobType->name, 'route' => $unit->jobType->route], 'ownership' => $unit->ownership, 'customer' => $unit->customer === null ? null : ['code' => $unit->customer->code, 'name' => $unit->customer->name],
            'vehicle' => $unit->vehicle, 'grade' => $unit->grade, 'credit' => (float) $unit->credit, 'package' => $unit->currentBuild?->package?->name, 'buildState' => $unit->currentBuild?->state,
            'promisedOn' => $unit->promised_on?->format('Y-m-d'), 'late' => $unit->promised_on !== null && ! in_array($unit->station, ['field', 'closed'], true) && $unit->promised_on->isPast() && ! $unit->promised_on->isToday(),
            'receivedAt' => $unit->received_at->toIso8601ZuluString(), 'version' => $unit->version,
        ];
    }
}
