<?php

namespace App\Stations\Dyno\Http;

use App\Kernel\Http\Paper;
use App\Kernel\Refusal;
use App\Stations\Dyno\Actions\CancelRun;
use App\Stations\Dyno\Actions\JudgeRun;
use App\Stations\Dyno\Actions\StartRun;
use App\Stations\Dyno\Actions\TakeRecording;
use App\Stations\Dyno\Actions\TestOnTheRoad;
use App\Stations\Dyno\Models\Run;
use App\Stations\Dyno\Pyramid;
use App\Stations\Dyno\Queries\DynoCertificate;
use App\Stations\Dyno\Queries\DynoSection;
use App\Stations\Dyno\Queries\GoodRuns;
use App\Stations\Dyno\Queries\ReferenceBeside;
use App\Stations\Dyno\Trace;
use App\Yard\Models\Build;
use App\Yard\Models\Unit;
use App\Yard\Queries\RouteCard;
use Illuminate\Contracts\View\View;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;
use Symfony\Component\HttpFoundation\StreamedResponse;

final class DynoController
{
    /** A curve is drawn with so many points. */
    private const POINTS = 2000;

    public function __construct(private readonly DynoSection $section)
    {
    }

    public function start(StartRunRequest $request, string $number, StartRun $action): JsonResponse
    {
        $run = $action->start(Build::released($number), $request->cell(), $request->person());

        return response()->json($this->section->run($run), 201);
    }

    public function recording(RecordingRequest $request, string $number, TakeRecording $action): JsonResponse
    {
        $build = Build::released($number);
        $run = $action->take($build, $request->recording(), $request->columns(), $request->person());

        return response()->json($this->section->run($run), 201);
    }

    /** One run with its analysis and a trace thin enough to draw. */
    public function show(Run $run): JsonResponse
    {
        return response()->json(
            $this->section->run($run) + [
                'analysis' => $run->analysis,
                'good' => GoodRuns::beside($run),
                'reference' => ReferenceBeside::of($run),
                'program' => [
                    'steps' => $run->program['steps'],
                    'ratios' => $run->program['ratios'],
                    'end' => $run->program['end'],
                ],
                'trace' => $run->state === 'analysed'
                    ? Pyramid::read($run, 0.0, (float) $run->program['end'], self::POINTS)
                    : null,
            ],
        );
    }

    /** Any stretch of the recording, in points enough to draw it; close enough, every sample. */
    public function stretch(StretchRequest $request, Run $run): JsonResponse
    {
        $in = $request->validated();
        if (! Trace::exists($run) || $run->state !== 'analysed') {
            throw new Refusal('The recording of this run is not there.', 404);
        }

        return response()->json(Pyramid::read(
            $run,
            (float) $in['from'],
            (float) $in['to'],
            (int) ($in['points'] ?? self::POINTS),
        ));
    }

    public function certificate(Run $run, DynoCertificate $certificate): View
    {
        return view('dyno-certificate', $certificate->of($run));
    }

    public function certificatePdf(Run $run, DynoCertificate $certificate): Response
    {
        return Paper::pdf(view('dyno-certificate', $certificate->of($run)), "dyno-run-$run->id");
    }

    public function download(Run $run): StreamedResponse
    {
        $file = Trace::open($run);

        return response()->streamDownload(function () use ($file): void {
            gzpassthru($file);
        }, "run-$run->id.csv", ['Content-Type' => 'text/csv']);
    }

    public function cancel(Run $run, CancelRun $action): JsonResponse
    {
        $action->cancel($run);

        return response()->json($this->section->run($run));
    }

    public function roadTest(
        RoadTestRequest $request,
        string $number,
        TestOnTheRoad $action,
        RouteCard $card,
    ): JsonResponse {
        $in = $request->validated();
        $unit = Unit::byNumber($number);
        $said = fn (string $field): array => array_filter($in[$field] ?? [], fn (mixed $v): bool => $v !== null);
        $why = $in['why'] ?? '';
        $action->record($unit, $why, $said('pressures'), $said('road'), $in['suspect'] ?? '', $request->person());

        return response()->json($card->of(Unit::byNumber($number), ['dyno']), 201);
    }

    public function judge(JudgeRunRequest $request, Run $run, JudgeRun $action, RouteCard $card): JsonResponse
    {
        $in = $request->validated();
        $action->judge($run, $in['verdict'], $in['reason'] ?? '', $in['suspect'] ?? '', $request->person());

        return response()->json($card->of($run->build->unit()->firstOrFail(), ['dyno']));
    }
}
