<?php

namespace App\Stations\Dyno\Http;

use App\Shop\Http\SignedRequest;
use App\Stations\Dyno\Actions\KeepReference;
use App\Stations\Dyno\Actions\StartRun;
use App\Stations\Dyno\Cells;
use App\Stations\Dyno\Queries\CellsShown;
use App\Yard\Http\Write;
use App\Yard\Models\Unit;
use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\Route;

/** The test cells and the units they are told by. */
final class CellController
{
    public function __construct(private readonly CellsShown $cells)
    {
    }

    public static function routes(): void
    {
        Route::get('dyno/cells', [self::class, 'index']);
        Write::with('dyno.run')->post('dyno/cells/{cell}/reference-runs', [self::class, 'run']);
        Write::with('dyno.approve')->put('dyno/cells/{cell}/reference', [self::class, 'keep']);
        Write::with('dyno.approve')->delete('dyno/cells/{cell}/reference', [self::class, 'release']);
    }

    public function index(): JsonResponse
    {
        return response()->json($this->cells->all());
    }

    public function run(SignedRequest $request, string $cell, StartRun $action): JsonResponse
    {
        $action->reference(Cells::named($cell), $request->person());

        return response()->json($this->cells->all(), 201);
    }

    public function keep(KeepReferenceRequest $request, string $cell, KeepReference $action): JsonResponse
    {
        $unit = Unit::byNumber($request->validated('coreTag'));
        $action->keep(Cells::named($cell), $unit, $request->person());

        return response()->json($this->cells->all());
    }

    public function release(SignedRequest $request, string $cell, KeepReference $action): JsonResponse
    {
        $action->release(Cells::named($cell), $request->person());

        return response()->json($this->cells->all());
    }
}
