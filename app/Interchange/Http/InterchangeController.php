<?php

namespace App\Interchange\Http;

use App\Catalog\Models\Part;
use App\Catalog\Models\Vehicle;
use App\Interchange\Queries\CoreUses;
use App\Interchange\Queries\PartSources;
use App\Interchange\Queries\VehicleSearch;
use App\Interchange\Queries\VehicleSupply;
use App\Yard\Models\Unit;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

final class InterchangeController
{
    public function vehicles(Request $request, VehicleSearch $find): JsonResponse
    {
        $found = $find->find($request->validate(['q' => 'required|string|max:60'])['q']);

        return response()->json([
            'vin' => $found['vin'],
            'year' => $found['year'],
            'vehicles' => $found['vehicles']->map(VehicleSupply::vehicle(...))->values(),
        ]);
    }

    public function vehicle(Request $request, string $code, VehicleSupply $serve): JsonResponse
    {
        $in = $request->validate(['year' => 'nullable|integer|min:1950|max:2100']);

        return response()->json(
            $serve->of(
                Vehicle::query()->where('code', $code)->firstOrFail(),
                isset($in['year']) ? (int) $in['year'] : null,
            ),
        );
    }

    public function core(string $number, CoreUses $serve): JsonResponse
    {
        return response()->json($serve->of(Unit::byNumber($number)));
    }

    public function part(Request $request, PartSources $find): JsonResponse
    {
        return response()->json(
            $find->of(
                Part::query()
                    ->where('number', $request->validate(['number' => 'required|string|max:40'])['number'])
                    ->firstOrFail(),
            ),
        );
    }
}
