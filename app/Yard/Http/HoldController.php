<?php

namespace App\Yard\Http;

use App\Shop\Role;
use App\Yard\Actions\LiftHold;
use App\Yard\Actions\PlaceHold;
use App\Yard\Models\Hold;
use App\Yard\Models\Unit;
use App\Yard\Queries\RouteCard;
use Illuminate\Http\JsonResponse;

final class HoldController
{
    public function place(PlaceHoldRequest $request, string $number, PlaceHold $action, RouteCard $card): JsonResponse
    {
        $in = $request->validated();
        $unit = Unit::byNumber($number);
        $action->place(
            $unit,
            'manual',
            rtrim($in['reason'], '.').'.',
            $request->person(),
            Role::from($in['liftRole'] ?? 'manager'),
        );

        return response()->json($card->of($unit, ['receiving']), 201);
    }

    public function lift(LiftHoldRequest $request, Hold $hold, LiftHold $action, RouteCard $card): JsonResponse
    {
        $in = $request->validated();
        $action->lift($hold, $in['reason'], $request->person());

        return response()->json($card->of($hold->unit()->firstOrFail(), ['receiving']));
    }
}
