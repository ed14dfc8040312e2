<?php

namespace App\Stations\Teardown\Http;

use App\Stations\Teardown\Actions\CompleteTeardown;
use App\Stations\Teardown\Actions\RecordFinding;
use App\Stations\Teardown\Actions\ReportSymptoms;
use App\Yard\Models\Unit;
use App\Yard\Queries\RouteCard;
use Illuminate\Http\JsonResponse;

final class TeardownController
{
    public function __construct(private readonly RouteCard $card)
    {
    }

    public function finding(RecordFindingRequest $request, string $number, RecordFinding $action): JsonResponse
    {
        $in = $request->validated();
        $unit = Unit::byNumber($number);
        $action->record($unit, $in, $request->person());

        return response()->json($this->card->of($unit, ['teardown']), 201);
    }

    public function symptoms(ReportSymptomsRequest $request, string $number, ReportSymptoms $action): JsonResponse
    {
        $in = $request->validated();
        $unit = Unit::byNumber($number);
        $action->report($unit, $in['observed'], $request->person(), $in['pressures'] ?? null);

        return response()->json($this->card->of($unit, ['teardown']));
    }

    public function complete(CompleteTeardownRequest $request, string $number, CompleteTeardown $action): JsonResponse
    {
        $in = $request->validated();
        $unit = Unit::byNumber($number);
        $action->complete($unit, $in['noCauseFound'] ?? false, $request->person());

        return response()->json($this->card->of($unit, ['teardown']));
    }
}
