<?php

namespace App\Shop;

use App\Shop\Http\CalculatorsController;
use App\Shop\Http\HouseRulesController;
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
        Route::get('house-rules', [HouseRulesController::class, 'index']);
        Write::with('shop.set-rules')->put('house-rules/{code}', [HouseRulesController::class, 'set']);
    }

    /** @return array<string, list<Role>> */
    public static function abilities(): array
    {
        return ['shop.set-rules' => [Role::Manager]];
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
