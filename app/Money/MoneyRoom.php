<?php

namespace App\Money;

use App\Money\Http\MoneyController;
use App\Money\Queries\OpenDebts;
use App\Shop\Role;
use App\Yard\Contracts\Decision;
use App\Yard\Contracts\ManagersDay;
use App\Yard\Contracts\MoneyFigure;
use App\Yard\Contracts\Room;
use App\Yard\Contracts\ScanHit;
use App\Yard\Http\Write;
use Illuminate\Support\Facades\Route;

/** Core charges, credits and what customers owe. */
final class MoneyRoom implements ManagersDay, Room
{
    public function __construct(private readonly OpenDebts $debts)
    {
    }

    public static function routes(): void
    {
        Route::get('money/core-balances', [MoneyController::class, 'balances']);
        Route::get('money/customers/{code}/statement', [MoneyController::class, 'statement']);
        Route::get('units/{number}/money/credit-revision', [MoneyController::class, 'creditRevision']);
        Write::with('receiving.receive')->post(
            'units/{number}/money/credit-revision',
            [MoneyController::class, 'reviseCredit'],
        );
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

    /** @return list<Decision> */
    public function decisions(): array
    {
        return [];
    }

    /** @return list<MoneyFigure> */
    public function moneyAtRisk(): array
    {
        return $this->debts->money();
    }
}
