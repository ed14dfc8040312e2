<?php

namespace App\Yard\Queries;

use App\Yard\Models\Unit;
use App\Yard\StationName;

/** What lists and headers show of a unit. */
final class UnitSummary
{
    /**
     * @param  Unit  $unit  loaded with Unit::named()
     * @return array<string, mixed>
     */
    public static function of(Unit $unit): array
    {
        return [
            'coreTag' => $unit->core_tag,
            'serial' => $unit->build_serial,
            'generation' => $unit->build_generation,
            'station' => $unit->station,
            'stationSince' => $unit->station_since->toIso8601ZuluString(),
            'rack' => $unit->rack,
            'family' => $unit->family_name,
            'variant' => $unit->variant_code === null
                ? null
                : ['code' => $unit->variant_code, 'name' => $unit->variant_name],
            'jobType' => [
                'code' => $unit->job_code,
                'name' => $unit->job_name,
                'route' => json_decode($unit->job_route, true),
            ],
            'ownership' => $unit->ownership,
            'customer' => $unit->customer_code === null
                    ? null
                    : ['code' => $unit->customer_code, 'name' => $unit->customer_name],
            'vehicle' => $unit->vehicle,
            'grade' => $unit->grade,
            'credit' => (float) $unit->credit,
            'package' => $unit->package_name,
            'buildState' => $unit->build_state,
            'promisedOn' => $unit->promised_on?->format('Y-m-d'),
            'late' => $unit->promised_on !== null &&
                ! in_array($unit->station, [StationName::Field, StationName::Closed], true) &&
                $unit->promised_on->isPast() &&
                ! $unit->promised_on->isToday(),
            'receivedAt' => $unit->received_at->toIso8601ZuluString(),
            'version' => $unit->version,
        ];
    }
}
