<?php

namespace App\Stations\Receiving\Http;

use App\Shop\Http\SignedRequest;
use App\Stations\Receiving\Actions\FillTray;
use App\Stations\Receiving\Actions\MoveTray;
use App\Stations\Receiving\Actions\WeighTray;
use App\Stations\Receiving\Queries\TraysOfUnit;
use App\Yard\Http\Write;
use App\Yard\Models\Unit;
use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\Route;

/** Trays of loose parts: tied to a unit, counted, moved through washer and inspection, freed. */
final class TrayController
{
    public function __construct(private readonly TraysOfUnit $trays)
    {
    }

    public static function routes(): void
    {
        Route::get('units/{number}/trays', [self::class, 'index']);
        Write::with('receiving.trays')->post('units/{number}/trays', [self::class, 'fill']);
        Write::with('receiving.trays')->post('units/{number}/trays/{tag}/weighings', [self::class, 'weigh']);
        Write::with('receiving.trays')->put('units/{number}/trays/{tag}/stage', [self::class, 'move']);
        Write::with('receiving.trays')->delete('units/{number}/trays/{tag}', [self::class, 'free']);
    }

    public function index(string $number): JsonResponse
    {
        return $this->shown(Unit::byNumber($number));
    }

    public function fill(FillTrayRequest $request, string $number, FillTray $action): JsonResponse
    {
        $in = $request->validated();
        $unit = Unit::byNumber($number);
        $action->fill($unit, $in['tag'], $in['items']);

        return $this->shown($unit, 201);
    }

    public function weigh(WeighTrayRequest $request, string $number, string $tag, WeighTray $action): JsonResponse
    {
        $unit = Unit::byNumber($number);
        $action->weigh($unit, $tag, $request->validated(), $request->person());

        return $this->shown($unit, 201);
    }

    public function move(MoveTrayRequest $request, string $number, string $tag, MoveTray $action): JsonResponse
    {
        $unit = Unit::byNumber($number);
        $action->move($unit, $tag, $request->validated('stage'), $request->person());

        return $this->shown($unit);
    }

    public function free(SignedRequest $request, string $number, string $tag, MoveTray $action): JsonResponse
    {
        $unit = Unit::byNumber($number);
        $action->free($unit, $tag, $request->person());

        return $this->shown($unit);
    }

    private function shown(Unit $unit, int $status = 200): JsonResponse
    {
        return response()->json($this->trays->of($unit), $status);
    }
}
