<?php

namespace App\Shop;

use App\Shop\Http\CalculatorsController;
use App\Shop\Http\CustomersController;
use App\Shop\Http\HealthController;
use App\Shop\Http\HouseRulesController;
use App\Shop\Http\PeopleController;
use App\Shop\Http\ToolsController;
use App\Shop\Queries\CustomerNames;
use App\Yard\Contracts\Room;
use App\Yard\Contracts\ScanHit;
use App\Yard\Http\Write;
use Illuminate\Support\Facades\Route;

/** People, customers, gauges, house rules and the calculators by hand. */
final class ShopRoom implements Room
{
    public function __construct(private readonly CustomerNames $customers)
    {
    }

    public static function routes(): void
    {
        Route::get('calc', [CalculatorsController::class, 'index']);
        Route::get('calc/{name}', [CalculatorsController::class, 'schema']);
        Route::post('calc/{name}', [CalculatorsController::class, 'run']);
        Route::middleware('can:shop.people')->group(function (): void {
            Route::get('people', [PeopleController::class, 'index']);
            Route::get('people/sign-ins', [PeopleController::class, 'log']);
            Route::put('people/{person:badge}/pin', [PeopleController::class, 'pin']);
        });
        Write::with('shop.people')->post('people', [PeopleController::class, 'add']);
        Write::with('shop.people')->put('people/{person:badge}', [PeopleController::class, 'change']);
        Write::with('shop.people')->delete('people/{person:badge}/sessions', [PeopleController::class, 'endSessions']);
        Write::with('shop.people')->delete('people/{person:badge}/lock', [PeopleController::class, 'lift']);
        Write::with('shop.people')->post('people/locked-places/lift', [PeopleController::class, 'liftPlace']);
        Route::get('customers', [CustomersController::class, 'index']);
        Route::get('health', [HealthController::class, 'show'])->middleware('can:shop.health');
        Route::get('tools', [ToolsController::class, 'index']);
        Write::with('shop.tools')->post('tools', [ToolsController::class, 'add']);
        Write::with('shop.tools')->put('tools/{tag}', [ToolsController::class, 'change']);
        Route::get('house-rules', [HouseRulesController::class, 'index']);
        Write::with('shop.set-rules')->put('house-rules/{code}', [HouseRulesController::class, 'set']);
    }

    /** @return array<string, list<Role>> */
    public static function abilities(): array
    {
        return [
            'shop.set-rules' => [Role::Manager],
            'shop.tools' => [Role::Manager],
            'shop.people' => [Role::Manager],
            'shop.health' => [Role::Manager],
        ];
    }

    /** @return array<class-string, class-string> */
    public static function provides(): array
    {
        return [];
    }

    /** @return list<ScanHit> */
    public function scan(string $typed): array
    {
        return $this->customers->scan($typed);
    }
}
