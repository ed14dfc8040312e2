<?php

namespace App\Stations\Dispatch;

use App\Shop\Role;
use App\Stations\Dispatch\Http\DispatchController;
use App\Stations\Dispatch\Queries\CommissioningRecord;
use App\Stations\Dispatch\Queries\DispatchSection;
use App\Work\Bench;
use App\Work\Http\BenchController;
use App\Work\Queries\BenchWork;
use App\Work\Queries\OpenWork;
use App\Yard\Contracts\Blocker;
use App\Yard\Contracts\InstallationRecord;
use App\Yard\Contracts\ScanHit;
use App\Yard\Contracts\Section;
use App\Yard\Contracts\Station;
use App\Yard\Gate;
use App\Yard\Http\Write;
use App\Yard\Models\Unit;
use App\Yard\StationName;

/** A unit leaves the house with its papers. */
final class DispatchStation implements Station
{
    public function __construct(private readonly DispatchSection $section)
    {
    }

    public static function routes(): void
    {
        BenchController::routes(Bench::Dispatch);
        Write::with('dispatch.ship')->post('units/{number}/dispatch/shipment', [DispatchController::class, 'ship']);
        Write::with('returns.handle')->post(
            'units/{number}/dispatch/commissioning',
            [DispatchController::class, 'commission'],
        );
    }

    /** @return array<string, list<Role>> */
    public static function abilities(): array
    {
        return ['dispatch.ship' => [Role::Manager, Role::Dyno]];
    }

    public function section(): Section
    {
        return $this->section;
    }

    /** @return array<class-string, class-string> */
    public static function provides(): array
    {
        return [InstallationRecord::class => CommissioningRecord::class];
    }

    /** @return list<ScanHit> */
    public function scan(string $typed): array
    {
        return [];
    }

    /** @return list<Blocker> */
    public function blockers(Unit $unit, Gate $gate): array
    {
        return $gate === Gate::Ship && $unit->station === StationName::Dispatch
            ? OpenWork::at(BenchWork::of($unit, Bench::Dispatch), $gate)
            : [];
    }
}
