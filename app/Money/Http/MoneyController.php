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
    public function balances(BalancesRequest $request, CoreBalance $balance): JsonResponse
    {
        $in = $request->validated();

        return response()->json(
            $balance->page(
                $in['q'] ?? '',
                $in['sort'] ?? '-overdue',
                (int) ($in['after'] ?? 0),
                (int) config('yard.page_size'),
            ),
        );
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
        $revised = $action->preview(Unit::byNumber($number));

        return response()->json([
            'grade' => $revised->grading->grade->value,
            'gradeReason' => $revised->grading->reason,
            'credit' => $revised->credit->amount(),
            'lines' => $revised->lines(),
            'lostParts' => $revised->lostParts,
        ]);
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
