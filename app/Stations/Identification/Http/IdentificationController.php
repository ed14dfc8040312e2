<?php

namespace App\Stations\Identification\Http;

use App\Stations\Identification\Actions\AnswerClue;
use App\Stations\Identification\Actions\ConfirmIdentity;
use App\Stations\Identification\Queries\TagReading;
use App\Yard\Models\Unit;
use App\Yard\Queries\RouteCard;
use Illuminate\Http\JsonResponse;

final class IdentificationController
{
    public function answer(
        AnswerClueRequest $request,
        string $number,
        AnswerClue $action,
        RouteCard $card,
    ): JsonResponse {
        $in = $request->validated();
        $unit = Unit::byNumber($number);
        $action->answer($unit, $in['feature'], $in['value'] ?? null, $request->person());

        return response()->json($card->of($unit, ['identification']));
    }

    public function tag(ReadTagRequest $request, TagReading $reader): JsonResponse
    {
        return response()->json($reader->read($request->validated()['text']));
    }

    public function decide(
        DecideIdentityRequest $request,
        string $number,
        ConfirmIdentity $action,
        RouteCard $card,
    ): JsonResponse {
        $in = $request->validated();
        $unit = Unit::byNumber($number);
        ($in['variant'] ?? null) === null
            ? $action->markUnknown($unit, $in['note'] ?? '', $request->person())
            : $action->confirm(
                $unit,
                $in['variant'],
                $in['foreignParts'] ?? [],
                $in['note'] ?? '',
                $request->person(),
            );

        return response()->json($card->of($unit, ['identification']));
    }
}
