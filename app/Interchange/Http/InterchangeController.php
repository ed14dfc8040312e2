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

final class InterchangeController
{
    public function vehicles(VehicleSearchRequest $request, VehicleSearch $find): JsonResponse
    {
        $found = $find->find($request->validated()['q']);

        return response()->json([
            'vin' => $found['vin'],
            'year' => $found['year'],
            'vehicles' => $found['vehicles']->map(VehicleSupply::vehicle(...))->values(),
        ]);
    }

    public function vehicle(VehicleSupplyRequest $request, string $code, VehicleSupply $serve): JsonResponse
    {
        $in = $request->validated();

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

    public function part(PartSourcesRequest $request, PartSources $find): JsonResponse
    {
        return response()->json(
            $find->of(
                Part::query()
                    ->where('number', $request->validated()['number'])
                    ->firstOrFail(),
            ),
        );
    }
}
