<?php

namespace App\Stations\Teardown\Http;

use App\Stations\Teardown\Actions\AgreeSwap;
use App\Stations\Teardown\Actions\CompleteTeardown;
use App\Stations\Teardown\Actions\RecordFinding;
use App\Stations\Teardown\Actions\RecordUnharmed;
use App\Stations\Teardown\Actions\RepairPlace;
use App\Stations\Teardown\Actions\ReportSymptoms;
use App\Stations\Teardown\Actions\TraceLeak;
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

    public function unharmed(UnharmedRequest $request, string $number, RecordUnharmed $action): JsonResponse
    {
        $unit = Unit::byNumber($number);
        $action->record($unit, array_values($request->validated('parts')), $request->person());

        return response()->json($this->card->of($unit, ['teardown']), 201);
    }

    public function leak(TraceLeakRequest $request, string $number, TraceLeak $action): JsonResponse
    {
        $unit = Unit::byNumber($number);
        $action->see($unit, $request->validated('observed'));

        return response()->json($this->card->of($unit, ['teardown']));
    }

    public function repair(RepairPlaceRequest $request, string $number, RepairPlace $action): JsonResponse
    {
        $in = $request->validated();
        $unit = Unit::byNumber($number);
        $note = trim($in['note'] ?? '');
        $action->repair($unit, $in['place'], $in['trouble'], $in['method'], $note, $request->person());

        return response()->json($this->card->of($unit, ['teardown']), 201);
    }

    public function swap(AgreeSwapRequest $request, string $number, AgreeSwap $action): JsonResponse
    {
        $in = $request->validated();
        $unit = Unit::byNumber($number);
        $action->agree($unit, $in['part'], $in['agreedBy'], $in['how'], $request->person());

        return response()->json($this->card->of($unit, ['teardown']), 201);
    }

    public function complete(CompleteTeardownRequest $request, string $number, CompleteTeardown $action): JsonResponse
    {
        $in = $request->validated();
        $unit = Unit::byNumber($number);
        $action->complete($unit, $in['noCauseFound'] ?? false, $request->person());

        return response()->json($this->card->of($unit, ['teardown']));
    }
}
