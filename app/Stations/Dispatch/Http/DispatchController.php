<?php

namespace App\Stations\Dispatch\Http;

use App\Stations\Dispatch\Actions\RecordCommissioning;
use App\Stations\Dispatch\Actions\ShipUnit;
use App\Yard\Models\Build;
use App\Yard\Queries\RouteCard;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

final class DispatchController
{
    public function ship(Request $request, string $number, ShipUnit $action, RouteCard $card): JsonResponse
    {
        $in = $request->validate([
            'customer' => 'nullable|string|max:20',
            'carrier' => 'nullable|string|max:80',
            'checked' => 'array|max:60',
            'checked.*' => 'string|max:300',
        ]);
        $build = Build::released($number);
        $action->ship($build, $in['customer'] ?? null, $in['carrier'] ?? '', $in['checked'] ?? [], $request->user());

        return response()->json($card->of($build->unit, ['dispatch']), 201);
    }

    public function commission(
        Request $request,
        string $number,
        RecordCommissioning $action,
        RouteCard $card,
    ): JsonResponse {
        $in = $request->validate([
            'installedOn' => 'required|date_format:Y-m-d',
            'odometer' => 'required|string|max:30',
            'installer' => 'required|string|max:120',
            'items' => 'present|array|max:20',
            'items.*' => 'in:'.implode(',', array_keys(RecordCommissioning::ITEMS)),
            'converterDepth' => 'required|string|max:30',
            'flexplateDepth' => 'required|string|max:30',
        ]);
        $build = Build::released($number);
        $action->record($build, $in, $request->user());

        return response()->json($card->of($build->unit, ['dispatch']), 201);
    }
}
