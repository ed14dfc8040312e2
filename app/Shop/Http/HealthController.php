<?php

namespace App\Shop\Http;

use App\Shop\Health\Examination;
use Illuminate\Http\JsonResponse;

/** How the machine behind the shop stands. */
final class HealthController
{
    public function show(Examination $examination): JsonResponse
    {
        return response()->json(['at' => now()->toIso8601ZuluString(), 'vitals' => $examination->vitals()]);
    }
}
