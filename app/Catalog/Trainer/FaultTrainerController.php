<?php

namespace App\Catalog\Trainer;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Route;

/** A hidden fault to find: dealt, looked at, named. It computes and stores nothing. */
final class FaultTrainerController
{
    private const SEALED = 'required|string|max:20000';

    private const WORD = 'required|string|max:40';

    public function __construct(private readonly FaultTrainer $trainer)
    {
    }

    public static function routes(): void
    {
        Route::post('fault-trainer', [self::class, 'deal']);
        Route::post('fault-trainer/looks', [self::class, 'look']);
        Route::post('fault-trainer/verdict', [self::class, 'name']);
    }

    public function deal(Request $request): JsonResponse
    {
        $in = $request->validate(['family' => self::WORD, 'two' => 'boolean']);

        return response()->json($this->trainer->deal($in['family'], (bool) ($in['two'] ?? false)));
    }

    public function look(Request $request): JsonResponse
    {
        $in = $request->validate(['round' => self::SEALED, 'kind' => self::WORD, 'what' => self::WORD]);

        return response()->json($this->trainer->look($in['round'], $in['kind'], $in['what']));
    }

    public function name(Request $request): JsonResponse
    {
        $in = $request->validate(['round' => self::SEALED, 'element' => self::WORD, 'fault' => self::WORD]);

        return response()->json($this->trainer->name($in['round'], $in['element'], $in['fault']));
    }
}
