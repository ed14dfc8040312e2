<?php

namespace App\Stations\Dispatch\Http;

use App\Stations\Dispatch\Actions\RecordCommissioning;
use App\Stations\Dispatch\Actions\ShipUnit;
use App\Yard\Models\Build;
use App\Yard\Queries\RouteCard;
use Illuminate\Http\JsonResponse;

final class DispatchController
{
    public function ship(ShipUnitRequest $request, string $number, ShipUnit $action, RouteCard $card): JsonResponse
    {
        $in = $request->validated();
        $build = Build::released($number);
        $action->ship($build, $in['customer'] ?? null, $in['carrier'] ?? '', $request->person());

        return response()->json($card->of($build->unit, ['dispatch']), 201);
    }

    public function commission(
        RecordCommissioningRequest $request,
        string $number,
        RecordCommissioning $action,
        RouteCard $card,
    ): JsonResponse {
        $in = $request->validated();
        $build = Build::released($number);
        $action->record($build, $in, $request->person());

        return response()->json($card->of($build->unit, ['dispatch']), 201);
    }
}
