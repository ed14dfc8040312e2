<?php

namespace App\Insight;

use App\Insight\Http\InsightController;
use App\Shop\Role;
use App\Yard\Contracts\FieldRecord;
use App\Yard\Contracts\Room;
use App\Yard\Contracts\ScanHit;
use Illuminate\Support\Facades\Route;

/** What the records say once there are enough of them. */
final class InsightRoom implements Room
{
    public static function routes(): void
    {
        Route::get('insight/return-rates', [InsightController::class, 'returnRates']);
    }

    /** @return array<string, list<Role>> */
    public static function abilities(): array
    {
        return [];
    }

    /** @return array<class-string, class-string> */
    public static function provides(): array
    {
        return [FieldRecord::class => FieldCounts::class];
    }

    /** @return list<ScanHit> */
    public function scan(string $typed): array
    {
        return [];
    }
}
