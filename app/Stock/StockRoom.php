<?php

namespace App\Stock;

use App\Shop\Role;
use App\Stock\Http\StockController;
use App\Stock\Queries\StockNumbers;
use App\Yard\Contracts\Room;
use App\Yard\Contracts\ScanHit;
use Illuminate\Support\Facades\Route;

/** The shelf: parts, lots, and which unit carries which. */
final class StockRoom implements Room
{
    public function __construct(private readonly StockNumbers $numbers)
    {
    }

    public static function routes(): void
    {
        Route::get('stock', [StockController::class, 'index']);
        Route::get('lots/{lot}', [StockController::class, 'lot']);
        Route::get('lots/{lot}/units.csv', [StockController::class, 'recall']);
    }

    /** @return array<string, list<Role>> */
    public static function abilities(): array
    {
        return [];
    }

    /** @return array<class-string, class-string> */
    public static function provides(): array
    {
        return [];
    }

    /** @return list<ScanHit> */
    public function scan(string $typed): array
    {
        return $this->numbers->scan($typed);
    }
}
