<?php

namespace App\Stations\Identification\Http;

use App\Shop\Http\SignedRequest;
use App\Stations\Identification\Actions\Trainer;
use App\Stations\Identification\Models\TrainerRound;
use App\Stations\Identification\Queries\TrainerResults;
use Illuminate\Http\JsonResponse;

final class TrainerController
{
    public function __construct(private readonly Trainer $trainer)
    {
    }

    public function results(): JsonResponse
    {
        return response()->json(['results' => TrainerResults::all()]);
    }

    public function deal(DealRoundRequest $request): JsonResponse
    {
        $in = $request->validated();

        return response()->json(
            $this->trainer->shown($this->trainer->deal($request->person(), $in['family'] ?? null)),
            201,
        );
    }

    public function ask(AskFeatureRequest $request, TrainerRound $round): JsonResponse
    {
        $this->own($request, $round);
        $this->trainer->ask($round, $request->validated()['feature']);

        return response()->json($this->trainer->shown($round->refresh()));
    }

    public function answer(AnswerRoundRequest $request, TrainerRound $round): JsonResponse
    {
        $this->own($request, $round);
        $this->trainer->answer($round, $request->validated()['variant']);

        return response()->json($this->trainer->shown($round->refresh()));
    }

    private function own(SignedRequest $request, TrainerRound $round): void
    {
        abort_unless($round->person_id === $request->person()->id, 404);
    }
}
