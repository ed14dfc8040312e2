<?php

namespace App\Stations\Assembly\Http;

use App\Stations\Assembly\Actions\FitPack;
use App\Stations\Assembly\Actions\RecordMeasurement;
use App\Stations\Assembly\Actions\SignOffBuild;
use App\Stations\Assembly\Queries\FitProposal;
use App\Stations\Teardown\Actions\CompleteTeardown;
use App\Stations\Teardown\Actions\RecordFinding;
use App\Stations\Teardown\Actions\ReportSymptoms;
use App\Work\Actions\MarkStep;
use App\Yard\Models\Build;
use App\Yard\Models\Unit;
use App\Yard\Queries\RouteCard;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

final class AssemblyController
{
    public function __construct(private readonly RouteCard $card)
    {
    }

    public function teardownStep(Request $request, string $number, string $step, MarkStep $action): JsonResponse
    {
        return $this->step($request, $number, 'teardown', $step, $action);
    }

    public function assemblyStep(Request $request, string $number, string $step, MarkStep $action): JsonResponse
    {
        return $this->step($request, $number, 'assembly', $step, $action);
    }

    public function finding(Request $request, string $number, RecordFinding $action): JsonResponse
    {
        $in = $request->validate([
            'part' => 'required|string|max:80',
            'condition' => 'required|string|max:60',
            'disposition' => 'required|in:reuse,recondition,replace,scrap,shelf',
            'role' => 'required|in:cause,collateral,none',
            'ours' => 'boolean',
            'note' => 'nullable|string|max:400',
            'version' => 'nullable|integer',
        ]);
        $unit = Unit::byNumber($number);
        $action->record($unit, $in, $request->user());

        return response()->json($this->card->of($unit, ['teardown']), 201);
    }

    public function symptoms(Request $request, string $number, ReportSymptoms $action): JsonResponse
    {
        $in = $request->validate([
            'observed' => 'present|array|max:40',
            'observed.*' => 'string|max:20',
            'pressures' => 'nullable|array|max:20',
            'pressures.*' => 'string|max:20',
        ]);
        $unit = Unit::byNumber($number);
        $action->report($unit, $in['observed'], $request->user(), $in['pressures'] ?? null);

        return response()->json($this->card->of($unit, ['teardown']));
    }

    public function completeTeardown(Request $request, string $number, CompleteTeardown $action): JsonResponse
    {
        $in = $request->validate(['noCauseFound' => 'boolean']);
        $unit = Unit::byNumber($number);
        $action->complete($unit, $in['noCauseFound'] ?? false, $request->user());

        return response()->json($this->card->of($unit, ['teardown']));
    }

    public function propose(Request $request, string $number, string $place, FitProposal $action): JsonResponse
    {
        $in = $request->validate(['reading' => 'required|string|max:40', 'trialWasher' => 'nullable|string|max:40']);

        return response()->json(
            $action->propose(Build::released($number), $place, $in['reading'], $in['trialWasher'] ?? null),
        );
    }

    public function fit(Request $request, string $number, string $place, FitPack $action): JsonResponse
    {
        $in = $request->validate([
            'reading' => 'required|string|max:40',
            'trialWasher' => 'nullable|string|max:40',
            'picks' => 'required|array|min:1|max:60',
            'picks.*.slot' => 'required|string|max:60',
            'picks.*.part' => 'required|string|max:40',
            'picks.*.count' => 'required|integer|min:1|max:99',
        ]);
        $build = Build::released($number);
        $action->fit($build, $place, $in['reading'], $in['trialWasher'] ?? null, $in['picks'], $request->user());

        return response()->json($this->card->of($build->unit, ['assembly']), 201);
    }

    public function measure(Request $request, string $number, RecordMeasurement $action): JsonResponse
    {
        $in = $request->validate([
            'kind' => 'required|in:pack,end-play,air-check,torque',
            'code' => 'required|string|max:60',
            'reading' => 'required|string|max:40',
            'gauge' => 'nullable|string|max:20',
            'note' => 'nullable|string|max:300',
        ]);
        $build = Build::released($number);
        $action->record(
            $build,
            $in['kind'],
            $in['code'],
            $in['reading'],
            $in['gauge'] ?? null,
            $in['note'] ?? '',
            $request->user(),
        );

        return response()->json($this->card->of($build->unit, ['assembly']), 201);
    }

    public function signOff(Request $request, string $number, SignOffBuild $action): JsonResponse
    {
        $build = Build::released($number);
        $action->sign($build, $request->user());

        return response()->json($this->card->of($build->unit, ['assembly']), 201);
    }

    private function step(
        Request $request,
        string $number,
        string $phase,
        string $step,
        MarkStep $action,
    ): JsonResponse {
        $in = $request->validate([
            'counts' => 'array|max:20',
            'counts.*' => 'integer|min:0|max:999',
            'note' => 'nullable|string|max:400',
        ]);
        $unit = Unit::byNumber($number);
        $action->mark($unit, $phase, $step, $in['counts'] ?? [], $in['note'] ?? '', $request->user());

        return response()->json($this->card->of($unit, [$phase]));
    }
}
