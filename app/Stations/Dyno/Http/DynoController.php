<?php

namespace App\Stations\Dyno\Http;

use App\Kernel\Refusal;
use App\Stations\Dyno\Actions\CancelRun;
use App\Stations\Dyno\Actions\JudgeRun;
use App\Stations\Dyno\Actions\StartRun;
use App\Stations\Dyno\Models\Run;
use App\Stations\Dyno\Queries\DynoSection;
use App\Stations\Dyno\Trace;
use App\Yard\Models\Build;
use App\Yard\Queries\RouteCard;
use Illuminate\Http\JsonResponse;
use Symfony\Component\HttpFoundation\BinaryFileResponse;

final class DynoController
{
    public function __construct(private readonly DynoSection $section)
    {
    }

    public function start(StartRunRequest $request, string $number, StartRun $action): JsonResponse
    {
        $in = $request->validated();
        $build = Build::released($number);

        return response()->json(
            $this->section->run($action->start($build, $in['specimen'] ?? 'sound', $request->person())),
            201,
        );
    }

    /** One run with its analysis and a trace thin enough to draw. */
    public function show(Run $run): JsonResponse
    {
        $recorded = in_array($run->state, ['recorded', 'analysed'], true);
        $every = 5;

        return response()->json(
            $this->section->run($run) + [
                'analysis' => $run->analysis,
                'program' => [
                    'steps' => $run->program['steps'],
                    'ratios' => $run->program['ratios'],
                    'end' => $run->program['end'],
                ],
                'trace' => $recorded
                    ? ['every_s' => $every / $run->program['rate_hz'], 'channels' => Trace::read($run, $every)]
                    : null,
            ],
        );
    }

    public function download(Run $run): BinaryFileResponse
    {
        if (! is_file(Trace::path($run))) {
            throw new Refusal('The recording of this run is not there.', 404);
        }

        return response()->download(Trace::path($run), "run-$run->id.csv", ['Content-Type' => 'text/csv']);
    }

    public function cancel(Run $run, CancelRun $action): JsonResponse
    {
        $action->cancel($run);

        return response()->json($this->section->run($run));
    }

    public function judge(JudgeRunRequest $request, Run $run, JudgeRun $action, RouteCard $card): JsonResponse
    {
        $in = $request->validated();
        $action->judge($run, $in['verdict'], $in['reason'] ?? '', $in['suspect'] ?? '', $request->person());

        return response()->json($card->of($run->build->unit()->firstOrFail(), ['dyno']));
    }
}
