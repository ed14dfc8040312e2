<?php

namespace App\Money\Http;

use App\Money\Actions\ReviseCredit;
use App\Money\Queries\CoreBalance;
use App\Shop\Models\Customer;
use App\Yard\Models\Unit;
use App\Yard\Queries\RouteCard;
use Illuminate\Http\JsonResponse;

final class MoneyController
{
    public function balances(CoreBalance $balance): JsonResponse
    {
        return response()->json(['balances' => $balance->all()]);
    }

    public function statement(StatementRequest $request, string $code, CoreBalance $balance): JsonResponse
    {
        $in = $request->validated();

        return response()->json(
            $balance->statement(
                Customer::query()->where('code', $code)->firstOrFail(),
                $in['from'] ?? now()->subMonths(3)->format('Y-m-d'),
                $in['to'] ?? now()->format('Y-m-d'),
            ),
        );
    }

    public function creditRevision(string $number, ReviseCredit $action): JsonResponse
    {
        return response()->json($action->preview(Unit::byNumber($number)));
    }

    public function reviseCredit(
        ReviseCreditRequest $request,
        string $number,
        ReviseCredit $action,
        RouteCard $card,
    ): JsonResponse {
        $in = $request->validated();
        $unit = Unit::byNumber($number);
        $action->revise($unit, $in['reason'], $in['version'], $request->person());

        return response()->json($card->of($unit, ['receiving']));
    }
}
