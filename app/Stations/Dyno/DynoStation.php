<?php

namespace App\Stations\Dyno;

use App\Shop\Role;
use App\Stations\Dyno\Http\CellController;
use App\Stations\Dyno\Http\DynoController;
use App\Stations\Dyno\Queries\CellsBar;
use App\Stations\Dyno\Queries\DynoSection;
use App\Stations\Dyno\Queries\DynoVerdicts;
use App\Yard\Contracts\Blocker;
use App\Yard\Contracts\Decision;
use App\Yard\Contracts\DynoRecord;
use App\Yard\Contracts\ManagersDay;
use App\Yard\Contracts\MoneyFigure;
use App\Yard\Contracts\ScanHit;
use App\Yard\Contracts\Section;
use App\Yard\Contracts\Station;
use App\Yard\Gate;
use App\Yard\Http\Write;
use App\Yard\Models\Unit;
use Illuminate\Support\Facades\Route;

/** A build proves itself on the rig. */
final class DynoStation implements ManagersDay, Station
{
    public function __construct(
        private readonly DynoSection $section,
        private readonly DynoVerdicts $verdicts,
        private readonly CellsBar $cells,
    ) {
    }

    public static function routes(): void
    {
        CellController::routes();
        Route::get('dyno/runs/{run}', [DynoController::class, 'show']);
        Route::get('dyno/runs/{run}/trace.csv', [DynoController::class, 'download']);
        Route::get('dyno/runs/{run}/certificate', [DynoController::class, 'certificate']);
        Route::get('dyno/runs/{run}/certificate.pdf', [DynoController::class, 'certificatePdf']);
        Route::get('dyno/runs/{run}/trace', [DynoController::class, 'stretch']);
        Write::with('dyno.run')->post('units/{number}/dyno/runs', [DynoController::class, 'start']);
        Write::with('dyno.run')->post('units/{number}/dyno/recordings', [DynoController::class, 'recording']);
        Write::with('dyno.approve')->post('units/{number}/dyno/road-tests', [DynoController::class, 'roadTest']);
        Write::with('dyno.run')->post('dyno/runs/{run}/cancel', [DynoController::class, 'cancel']);
        Write::with('dyno.run')->post('dyno/runs/{run}/verdict', [DynoController::class, 'judge']);
    }

    /** @return array<string, list<Role>> */
    public static function abilities(): array
    {
        return ['dyno.run' => [Role::Manager, Role::Dyno], 'dyno.approve' => [Role::Manager]];
    }

    public function section(): Section
    {
        return $this->section;
    }

    /** @return array<class-string, class-string> */
    public static function provides(): array
    {
        return [DynoRecord::class => DynoVerdicts::class];
    }

    /** @return list<ScanHit> */
    public function scan(string $typed): array
    {
        return [];
    }

    /** @return list<Blocker> */
    public function blockers(Unit $unit, Gate $gate): array
    {
        return match ($gate) {
            Gate::Pass => [...$this->verdicts->againstPass($unit), ...$this->cells->againstPass($unit)],
            Gate::Ship => [...$this->verdicts->againstShipping($unit), ...$this->cells->againstShipping($unit)],
            default => [],
        };
    }

    /** @return list<Decision> */
    public function decisions(): array
    {
        return $this->verdicts->waiting();
    }

    /** @return list<MoneyFigure> */
    public function moneyAtRisk(): array
    {
        return [];
    }
}
