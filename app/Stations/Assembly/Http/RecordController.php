<?php

namespace App\Stations\Assembly\Http;

use App\Kernel\Http\Paper;
use App\Shop\Http\SignedRequest;
use App\Stations\Assembly\Actions\PickParts;
use App\Stations\Assembly\Queries\BuildRecord;
use App\Stations\Assembly\Queries\PickList;
use App\Yard\Http\Write;
use App\Yard\Models\Build;
use Illuminate\Contracts\View\View;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Route;

/** What an order asks from the shelf and what was taken for it; and the record of a build as page and PDF. */
final class RecordController
{
    public static function routes(): void
    {
        Route::get('units/{number}/assembly/record', [self::class, 'page']);
        Route::get('units/{number}/assembly/record.pdf', [self::class, 'pdf']);
        Route::get('units/{number}/assembly/picks', [self::class, 'picks']);
        Write::with('assembly.work')->post('units/{number}/assembly/picks', [self::class, 'pick']);
        Write::with('assembly.work')->post('units/{number}/assembly/picks/{part}/bought', [self::class, 'buy']);
        Write::with('assembly.work')->delete('units/{number}/assembly/picks/{part}', [self::class, 'putBack']);
    }

    public function page(string $number, BuildRecord $record): View
    {
        return view('build-record', $record->of(Build::released($number)));
    }

    public function pdf(string $number, BuildRecord $record): Response
    {
        return Paper::pdf(view('build-record', $record->of(Build::released($number))), "build-$number");
    }

    public function picks(string $number, PickList $list): JsonResponse
    {
        return response()->json($list->of(Build::released($number)));
    }

    public function pick(PickRequest $request, string $number, PickParts $action, PickList $list): JsonResponse
    {
        $in = $request->validated();
        $build = Build::released($number);
        $action->pick($build, $in['part'], $in['lot'], $in['instead'] ?? null, $request->person());

        return response()->json($list->of($build), 201);
    }

    public function buy(
        BuyRequest $request,
        string $number,
        string $part,
        PickParts $action,
        PickList $list,
    ): JsonResponse {
        $in = $request->validated();
        $build = Build::released($number);
        $paid = isset($in['paid']) ? (float) $in['paid'] : null;
        $action->buy($build, $part, $in['how'], $in['from'], $in['lot'], $paid, $request->person());

        return response()->json($list->of($build), 201);
    }

    public function putBack(
        SignedRequest $request,
        string $number,
        string $part,
        PickParts $action,
        PickList $list,
    ): JsonResponse {
        $build = Build::released($number);
        $action->putBack($build, $part, $request->person());

        return response()->json($list->of($build));
    }
}
