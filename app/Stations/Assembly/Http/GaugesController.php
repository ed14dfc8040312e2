<?php

namespace App\Stations\Assembly\Http;

use App\Kernel\Refusal;
use App\Shop\Actions\KeepGauges;
use App\Shop\Http\SignedRequest;
use App\Shop\Models\Gauge;
use App\Shop\Queries\GaugeRegister;
use App\Stations\Assembly\Actions\HoldParts;
use App\Stations\Assembly\Queries\BinPlan;
use App\Stations\Assembly\Queries\DoubtfulReadings;
use App\Stations\Assembly\Queries\ProcessChart;
use App\Yard\Http\Write;
use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\Route;

/** The register of gauges, what a bad one leaves in doubt, charts of what was measured, and the bin shared out. */
final class GaugesController
{
    public function __construct(private readonly GaugeRegister $register)
    {
    }

    public static function routes(): void
    {
        Route::get('gauges', [self::class, 'index']);
        Route::get('gauges/{code}/doubtful', [self::class, 'doubtful']);
        Write::with('assembly.gauges')->post('gauges/{code}/checks', [self::class, 'check']);
        Write::with('assembly.gauges')->post('gauges/{code}/studies', [self::class, 'study']);
        Route::get('processes', [self::class, 'processes']);
        // It computes and stores nothing, too long for an address line.
        Route::post('bin-plans/{family}/{pack}', [self::class, 'bin'])->middleware('can:assembly.work');
        Write::with('assembly.work')->post('bin-plans/{family}/{pack}/kept', [self::class, 'keep']);
        Write::with('assembly.work')->delete('bin-plans/{family}/{pack}/kept/{number}', [self::class, 'giveBack']);
        Route::get('processes/{family}/{kind}/{code}', [self::class, 'process']);
    }

    public function index(): JsonResponse
    {
        return response()->json(['gauges' => $this->register->all()]);
    }

    public function doubtful(string $code, DoubtfulReadings $doubtful): JsonResponse
    {
        $gauge = Gauge::query()->where('code', $code)->first() ?? throw new Refusal("There is no gauge $code.", 404);

        return response()->json($doubtful->of($gauge));
    }

    public function check(GaugeCheckRequest $request, string $code, KeepGauges $action): JsonResponse
    {
        $in = $request->validated();
        $good = $in['result'] === 'good';
        $action->check($code, $good, $in['nextDue'] ?? null, trim($in['note'] ?? ''), $request->person());

        return response()->json(['gauges' => $this->register->all()], 201);
    }

    public function study(GaugeStudyRequest $request, string $code, KeepGauges $action): JsonResponse
    {
        $action->study($code, array_values($request->validated('rows')), $request->person());

        return response()->json(['gauges' => $this->register->all()], 201);
    }

    public function bin(BinPlanRequest $request, string $family, string $pack, BinPlan $plan): JsonResponse
    {
        return response()->json($plan->of($family, $pack, $request->depths()));
    }

    public function keep(
        BinPlanRequest $request,
        string $family,
        string $pack,
        HoldParts $action,
        BinPlan $plan,
    ): JsonResponse {
        $action->accept($family, $pack, $request->depths(), $request->person());

        return response()->json($plan->of($family, $pack, $request->depths()), 201);
    }

    public function giveBack(
        SignedRequest $request,
        string $family,
        string $pack,
        string $number,
        HoldParts $action,
        BinPlan $plan,
    ): JsonResponse {
        $action->giveBack($number, $pack);

        return response()->json($plan->of($family, $pack, []));
    }

    public function processes(ProcessChart $chart): JsonResponse
    {
        return response()->json(['families' => $chart->choices()]);
    }

    public function process(string $family, string $kind, string $code, ProcessChart $chart): JsonResponse
    {
        return response()->json($chart->of($family, $kind, $code));
    }
}
