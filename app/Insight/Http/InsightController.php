<?php

namespace App\Insight\Http;

use App\Insight\Queries\ReturnRates;
use Illuminate\Http\JsonResponse;

final class InsightController
{
    public function returnRates(ReturnRates $rates): JsonResponse
    {
        return response()->json([
            'confidence' => 0.95,
            'method' => 'Clopper-Pearson',
            'groups' => $rates->groups(),
            'causes' => $rates->causes(),
        ]);
    }
}
