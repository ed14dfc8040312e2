<?php

namespace App\Stations\Ordering;

use App\Shop\Role;
use App\Stations\Ordering\Http\OrderingController;
use App\Stations\Ordering\Queries\OpenOrders;
use App\Stations\Ordering\Queries\OrderingSection;
use App\Stations\Ordering\Queries\Quote;
use App\Yard\Contracts\Alternatives;
use App\Yard\Contracts\Blocker;
use App\Yard\Contracts\Decision;
use App\Yard\Contracts\ManagersDay;
use App\Yard\Contracts\MoneyFigure;
use App\Yard\Contracts\ScanHit;
use App\Yard\Contracts\Section;
use App\Yard\Contracts\Station;
use App\Yard\Gate;
use App\Yard\Http\Write;
use App\Yard\Models\Unit;
use Illuminate\Support\Facades\Route;

/** What is built for whom: duty, package, options, specification, price. */
final class OrderingStation implements ManagersDay, Station
{
    public function __construct(private readonly OrderingSection $section, private readonly OpenOrders $open)
    {
    }

    public static function routes(): void
    {
        Route::get('units/{number}/ordering/difference', [OrderingController::class, 'difference']);
        Route::get('units/{number}/ordering/quote', [OrderingController::class, 'quote']);
        // Questions that compute and store nothing, too long for an address line.
        Route::middleware('can:ordering.specify')->group(function (): void {
            Route::post('units/{number}/ordering/preview', [OrderingController::class, 'preview']);
            Route::post('units/{number}/ordering/calculation', [OrderingController::class, 'calculation']);
        });
        Write::with('ordering.specify')->post('units/{number}/ordering', [OrderingController::class, 'order']);
        Write::with('ordering.release')->post('units/{number}/ordering/release', [
            OrderingController::class,
            'release',
        ]);
    }

    /** @return array<string, list<Role>> */
    public static function abilities(): array
    {
        return ['ordering.specify' => [Role::Manager], 'ordering.release' => [Role::Manager]];
    }

    public function section(): Section
    {
        return $this->section;
    }

    /** @return array<class-string, class-string> */
    public static function provides(): array
    {
        return [Alternatives::class => Quote::class];
    }

    /** @return list<ScanHit> */
    public function scan(string $typed): array
    {
        return [];
    }

    /** @return list<Blocker> */
    public function blockers(Unit $unit, Gate $gate): array
    {
        return [];
    }

    /** @return list<Decision> */
    public function decisions(): array
    {
        return $this->open->decisions();
    }

    /** @return list<MoneyFigure> */
    public function moneyAtRisk(): array
    {
        return $this->open->money();
    }
}
