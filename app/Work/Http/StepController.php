<?php

namespace App\Work\Http;

use App\Work\Actions\MarkStep;
use App\Yard\Models\Unit;
use App\Yard\Queries\RouteCard;
use Illuminate\Http\JsonResponse;

/** Guided steps, whichever bench they belong to. */
final class StepController
{
    public function __construct(private readonly RouteCard $card, private readonly MarkStep $action)
    {
    }

    public function teardown(MarkStepRequest $request, string $number, string $step): JsonResponse
    {
        return $this->mark($request, $number, 'teardown', $step);
    }

    public function assembly(MarkStepRequest $request, string $number, string $step): JsonResponse
    {
        return $this->mark($request, $number, 'assembly', $step);
    }

    private function mark(MarkStepRequest $request, string $number, string $phase, string $step): JsonResponse
    {
        $in = $request->validated();
        $unit = Unit::byNumber($number);
        $this->action->mark($unit, $phase, $step, $in['counts'] ?? [], $in['note'] ?? '', $request->person());

        return response()->json($this->card->of($unit, [$phase]));
    }
}
