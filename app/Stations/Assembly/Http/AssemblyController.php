<?php

namespace App\Stations\Assembly\Http;

use App\Shop\Http\SignedRequest;
use App\Stations\Assembly\Actions\SignOffBuild;
use App\Stations\Assembly\Actions\SignSubAssembly;
use App\Stations\Assembly\Queries\AirLeaks;
use App\Stations\Assembly\Queries\FitProposal;
use App\Stations\Assembly\Queries\GoodBuilds;
use App\Yard\Models\Build;
use App\Yard\Queries\RouteCard;
use Illuminate\Http\JsonResponse;

final class AssemblyController
{
    public function __construct(private readonly RouteCard $card)
    {
    }

    public function propose(
        ProposeFitRequest $request,
        string $number,
        string $place,
        FitProposal $action,
    ): JsonResponse {
        $in = $request->validated();

        return response()->json(
            $action->propose(Build::released($number), $place, $in['reading'], $in['trialWasher'] ?? null),
        );
    }

    public function air(string $number, AirLeaks $leaks): JsonResponse
    {
        return response()->json(['checks' => $leaks->of(Build::released($number))]);
    }

    public function tests(string $number, string $group, GoodBuilds $good): JsonResponse
    {
        return response()->json(['good' => $good->of(Build::released($number), $group)]);
    }

    public function signSub(
        SignedRequest $request,
        string $number,
        string $sub,
        SignSubAssembly $action,
    ): JsonResponse {
        $build = Build::released($number);
        $action->sign($build, $sub, $request->person());

        return response()->json($this->card->of($build->unit, ['assembly']), 201);
    }

    public function signOff(SignedRequest $request, string $number, SignOffBuild $action): JsonResponse
    {
        $build = Build::released($number);
        $action->sign($build, $request->person());

        return response()->json($this->card->of($build->unit, ['assembly']), 201);
    }
}
