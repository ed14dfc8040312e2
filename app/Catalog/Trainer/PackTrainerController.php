<?php

namespace App\Catalog\Trainer;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Route;

/** A pack to look at, and what is wrong with it. It computes and stores nothing. */
final class PackTrainerController
{
    public function __construct(private readonly PackTrainer $trainer)
    {
    }

    public static function routes(): void
    {
        Route::post('pack-trainer', [self::class, 'deal']);
        Route::post('pack-trainer/verdict', [self::class, 'name']);
    }

    public function deal(Request $request): JsonResponse
    {
        $in = $request->validate(['family' => 'required|string|max:40']);

        return response()->json($this->trainer->deal($in['family']));
    }

    public function name(Request $request): JsonResponse
    {
        $in = $request->validate(['round' => 'required|string|max:2000', 'choice' => 'required|string|max:40']);

        return response()->json($this->trainer->name($in['round'], $in['choice']));
    }
}
