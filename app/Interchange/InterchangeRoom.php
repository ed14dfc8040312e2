<?php

namespace App\Interchange;

use App\Interchange\Http\InterchangeController;
use App\Shop\Role;
use App\Yard\Contracts\Room;
use App\Yard\Contracts\ScanHit;
use Illuminate\Support\Facades\Route;

/** What fits what: vehicles, cores, parts, conversions. */
final class InterchangeRoom implements Room
{
    public static function routes(): void
    {
        Route::get('interchange/vehicles', [InterchangeController::class, 'vehicles']);
        Route::get('interchange/vehicles/{code}', [InterchangeController::class, 'vehicle']);
        Route::get('interchange/cores/{number}', [InterchangeController::class, 'core']);
        Route::get('interchange/part', [InterchangeController::class, 'part']);
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
        return [];
    }
}
