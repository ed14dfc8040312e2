<?php

namespace App\Yard;

use App\Shop\Role;
use App\Yard\Contracts\Decision;
use App\Yard\Contracts\ManagersDay;
use App\Yard\Contracts\MoneyFigure;
use App\Yard\Contracts\Room;
use App\Yard\Contracts\ScanHit;
use App\Yard\Http\HoldController;
use App\Yard\Http\PhotoController;
use App\Yard\Http\Write;
use App\Yard\Http\YardController;
use App\Yard\Models\Hold;
use App\Yard\Queries\UnitNumbers;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\Route;

/** What all stations share: the unit, its holds and photos, the route card, the scan line. */
final class YardRoom implements ManagersDay, Room
{
    public function __construct(private readonly UnitNumbers $numbers)
    {
    }

    public static function routes(): void
    {
        Route::get('yard', [YardController::class, 'board']);
        Route::get('yard/queue/{station}', [YardController::class, 'queue']);
        Route::get('yard/day', [YardController::class, 'day']);
        Route::get('yard/plan', [YardController::class, 'plan']);
        Route::get('house-rules/{code}/reach', [YardController::class, 'reach']);
        Route::get('units', [YardController::class, 'units']);
        Route::get('find', [YardController::class, 'find']);
        Route::get('units/{number}', [YardController::class, 'card']);
        Route::get('units/{number}/history', [YardController::class, 'history']);
        Route::get('photos/{photo}', [PhotoController::class, 'show']);
        Write::with('yard.hold')->post('units/{number}/photos', [PhotoController::class, 'store']);
        Write::with('yard.hold')->post('units/{number}/holds', [HoldController::class, 'place']);
        Write::with('yard.lift')->post('holds/{hold}/lift', [HoldController::class, 'lift']);
    }

    /** @return array<string, list<Role>> */
    public static function abilities(): array
    {
        return ['yard.hold' => Role::hands(), 'yard.lift' => Role::hands()];
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

    /** @return list<Decision> holds that nobody has lifted */
    public function decisions(): array
    {
        return array_values(Hold::query()
            ->join('units', 'units.id', '=', 'holds.unit_id')
            ->whereNull('lifted_at')
            ->orderBy('placed_at')
            ->limit(50)
            ->toBase()
            ->get(['holds.reason', 'holds.placed_at', 'units.core_tag'])
            ->map(
                fn (\stdClass $h) => new Decision(
                    'hold',
                    $h->core_tag,
                    "On hold: $h->reason",
                    (new Carbon($h->placed_at))->toIso8601ZuluString(),
                    "/units/$h->core_tag",
                ),
            )
            ->values()
            ->all());
    }

    /** @return list<MoneyFigure> */
    public function moneyAtRisk(): array
    {
        return [];
    }
}
