<?php

namespace App\Stations\Teardown\Http;

use App\Stations\Teardown\Actions\TellTimeline;
use App\Yard\Models\Unit;
use App\Yard\Queries\RouteCard;
use Illuminate\Http\JsonResponse;

final class TimelineController
{
    public function __construct(private readonly TellTimeline $timeline, private readonly RouteCard $card)
    {
    }

    public function tell(TellTimelineRequest $request, string $number): JsonResponse
    {
        $in = $request->validated();
        $unit = Unit::byNumber($number);
        $this->timeline->tell($unit, $in['at'], $in['kind'], $in['said'], $request->person());

        return response()->json($this->card->of($unit, ['teardown']));
    }

    public function strike(StrikeTimelineRequest $request, string $number): JsonResponse
    {
        $in = $request->validated();
        $unit = Unit::byNumber($number);
        $this->timeline->strike($unit, ['km' => (int) $in['km'], 'kind' => $in['kind'], 'said' => $in['said']]);

        return response()->json($this->card->of($unit, ['teardown']));
    }
}
