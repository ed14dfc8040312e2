<?php

namespace App\Shipping;

use App\Track\Build;
use App\Track\RouteCard;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

final class ShippingController
{
    public function ship(Request $request, string $number, ShipUnit $action, RouteCard $card): JsonResponse
    {
        $in = $request->validate(['customer' => 'nullable|string|max:20', 'carrier' => 'nullable|string|max:80', 'checked' => 'array|max:60', 'checked.*' => 'string|max:300']);
        $build = Build::released($number);
        $action->ship($build, $in['customer'] ?? null, $in['carrier'] ?? '', $in['checked'] ?? [], $request->user());

        return response()->json($card->of($build->unit, ['dispatch']), 201);
    }

    public function commission(Request $request, string $number, RecordCommissioning $action, RouteCard $card): JsonResponse
    {
        $in = $request->validate(['installedOn' => 'required|date_format:Y-m-d', 'odometer' => 'required|string|max:30', 'installer' => 'required|string|max:120', 'items' => 'present|array|max:20', 'items.*' => 'in:'.implode(',', array_keys(RecordCommissioning::ITEMS)), 'converterDepth' => 'required|string|max:30', 'flexplateDepth' => 'required|string|max:30']);
        $build = Build::released($number);
        $action->record($build, $in, $request->user());

        return response()->json($card->of($build->unit, ['dispatch']), 201);
    }
}
