<?php

namespace App\Stations\Returns\Http;

use App\Shop\Http\SignedRequest;
use App\Stations\Returns\Actions\DecideVerdict;
use App\Stations\Returns\Actions\ObserveReturn;
use App\Stations\Returns\Actions\OpenReturn;
use App\Stations\Returns\Actions\StartSecondBuild;
use App\Stations\Returns\Models\UnitReturn;
use App\Work\ReadingKind;
use App\Yard\Queries\RouteCard;
use Illuminate\Http\JsonResponse;

final class ReturnsController
{
    public function __construct(private readonly RouteCard $card)
    {
    }

    public function open(OpenReturnRequest $request, OpenReturn $action): JsonResponse
    {
        $in = $request->validated();

        return $this->show($action->open($in['serial'], $in, $request->person()), 201);
    }

    public function observe(ObserveFeatureRequest $request, UnitReturn $return, ObserveReturn $action): JsonResponse
    {
        $in = $request->validated();
        $action->see($return, $in['feature'], $in['value'] ?? null, $in['version']);

        return $this->show($return);
    }

    public function measure(MeasureReturnRequest $request, UnitReturn $return, ObserveReturn $action): JsonResponse
    {
        $in = $request->validated();
        $action->measure($return, ReadingKind::from($in['kind']), $in['code'], $in['reading'], $in['version']);

        return $this->show($return);
    }

    public function verdict(DecideVerdictRequest $request, UnitReturn $return, DecideVerdict $action): JsonResponse
    {
        $in = $request->validated();
        $action->decide(
            $return,
            $in['verdict'],
            $in['note'] ?? '',
            array_map(floatval(...), $in['split']),
            $in['version'],
            $request->person(),
        );

        return $this->show($return);
    }

    public function rebuild(SignedRequest $request, UnitReturn $return, StartSecondBuild $action): JsonResponse
    {
        $action->start($return, $request->person());

        return $this->show($return, 201);
    }

    private function show(UnitReturn $return, int $status = 200): JsonResponse
    {
        return response()->json($this->card->of($return->unit()->firstOrFail(), ['returns', 'dispatch']), $status);
    }
}
