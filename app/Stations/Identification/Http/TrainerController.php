<?php

namespace App\Stations\Identification\Http;

use App\Stations\Identification\Actions\Trainer;
use App\Stations\Identification\Models\TrainerRound;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

final class TrainerController
{
    public function __construct(private readonly Trainer $trainer)
    {
    }

    public function results(): JsonResponse
    {
        return response()->json(['results' => Trainer::results()]);
    }

    public function deal(Request $request): JsonResponse
    {
        $in = $request->validate(['family' => 'nullable|string|max:40']);

        return response()->json(
            $this->trainer->shown($this->trainer->deal($request->user(), $in['family'] ?? null)),
            201,
        );
    }

    public function ask(Request $request, TrainerRound $round): JsonResponse
    {
        $this->own($request, $round);
        $this->trainer->ask($round, $request->validate(['feature' => 'required|string|max:60'])['feature']);

        return response()->json($this->trainer->shown($round->refresh()));
    }

    public function answer(Request $request, TrainerRound $round): JsonResponse
    {
        $this->own($request, $round);
        $this->trainer->answer($round, $request->validate(['variant' => 'required|string|max:40'])['variant']);

        return response()->json($this->trainer->shown($round->refresh()));
    }

    private function own(Request $request, TrainerRound $round): void
    {
        abort_unless($round->person_id === $request->user()->id, 404);
    }
}
