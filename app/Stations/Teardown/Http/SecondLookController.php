<?php

namespace App\Stations\Teardown\Http;

use App\Shop\Http\SignedRequest;
use App\Stations\Teardown\Actions\ChooseReference;
use App\Stations\Teardown\Actions\GradeAgain;
use App\Stations\Teardown\Queries\SecondLooks;
use App\Yard\Models\Unit;
use App\Yard\Queries\RouteCard;
use Illuminate\Http\JsonResponse;

/** Parts graded blind by a second person, how far people agree, and the pictures they grade by. */
final class SecondLookController
{
    public function __construct(private readonly SecondLooks $looks)
    {
    }

    public function due(SignedRequest $request): JsonResponse
    {
        return response()->json($this->looks->due($request->person()));
    }

    public function grade(GradeAgainRequest $request, string $number, GradeAgain $action): JsonResponse
    {
        $in = $request->validated();
        $grade = $action->grade(Unit::byNumber($number), $in['part'], $in['condition'], $request->person());

        return response()->json($this->looks->due($request->person()) + [
            'first' => $grade->first_condition,
            'second' => $grade->second_condition,
        ], 201);
    }

    public function agreement(): JsonResponse
    {
        return response()->json(['rows' => $this->looks->agreement()]);
    }

    public function reference(
        ChooseReferenceRequest $request,
        string $number,
        ChooseReference $action,
        RouteCard $card,
    ): JsonResponse {
        $in = $request->validated();
        $unit = Unit::byNumber($number);
        $action->choose($unit, $in['part'], $in['condition'], (int) $in['photo'], $request->person());

        return response()->json($card->of($unit, ['teardown']), 201);
    }
}
