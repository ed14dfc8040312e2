<?php

namespace App\Stations\Identification\Http;

use App\Stations\Identification\Actions\AnswerClue;
use App\Stations\Identification\Actions\ConfirmIdentity;
use App\Stations\Identification\Queries\TagReading;
use App\Yard\Models\Unit;
use App\Yard\Queries\RouteCard;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

final class IdentificationController
{
    public function answer(Request $request, string $number, AnswerClue $action, RouteCard $card): JsonResponse
    {
        $in = $request->validate(['feature' => 'required|string|max:60', 'value' => 'nullable|string|max:120']);
        $unit = Unit::byNumber($number);
        $action->answer($unit, $in['feature'], $in['value'] ?? null, $request->user());

        return response()->json($card->of($unit, ['identity']));
    }

    public function tag(Request $request, TagReading $reader): JsonResponse
    {
        return response()->json($reader->read($request->validate(['text' => 'required|string|max:40'])['text']));
    }

    public function decide(Request $request, string $number, ConfirmIdentity $action, RouteCard $card): JsonResponse
    {
        $in = $request->validate([
            'variant' => 'nullable|string|max:40',
            'foreignParts' => 'array|max:40',
            'foreignParts.*' => 'string|max:80',
            'note' => 'nullable|string|max:300',
        ]);
        $unit = Unit::byNumber($number);
        ($in['variant'] ?? null) === null
            ? $action->markUnknown($unit, $in['note'] ?? '', $request->user())
            : $action->confirm($unit, $in['variant'], $in['foreignParts'] ?? [], $in['note'] ?? '', $request->user());

        return response()->json($card->of($unit, ['identity']));
    }
}
