<?php

namespace App\Stations\Returns\Http;

use App\Stations\Returns\Actions\DecideVerdict;
use App\Stations\Returns\Actions\ObserveReturn;
use App\Stations\Returns\Actions\OpenReturn;
use App\Stations\Returns\Actions\StartSecondBuild;
use App\Stations\Returns\Models\UnitReturn;
use App\Yard\Queries\RouteCard;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

final class ReturnsController
{
    public function __construct(private readonly RouteCard $card)
    {
    }

    public function open(Request $request, OpenReturn $action): JsonResponse
    {
        $in = $request->validate([
            'serial' => 'required|string|max:20',
            'complaint' => 'required|string|max:2000',
            'codes' => 'array|max:40',
            'codes.*' => 'string|max:20',
            'installedOn' => 'nullable|date_format:Y-m-d',
            'failedOn' => 'required|date_format:Y-m-d',
            'odometer' => 'nullable|string|max:30',
        ]);

        return $this->show($action->open($in['serial'], $in, $request->user()), 201);
    }

    public function observe(Request $request, string $number, ObserveReturn $action): JsonResponse
    {
        $in = $request->validate([
            'feature' => 'required|string|max:60',
            'value' => 'nullable|string|max:120',
            'version' => 'required|integer',
        ]);
        $return = $this->find($number);
        $action->see($return, $in['feature'], $in['value'] ?? null, $in['version']);

        return $this->show($return);
    }

    public function measure(Request $request, string $number, ObserveReturn $action): JsonResponse
    {
        $in = $request->validate([
            'kind' => 'required|in:pack,end-play,air-check',
            'code' => 'required|string|max:60',
            'reading' => 'required|string|max:40',
            'version' => 'required|integer',
        ]);
        $return = $this->find($number);
        $action->measure($return, $in['kind'], $in['code'], $in['reading'], $in['version']);

        return $this->show($return);
    }

    public function verdict(Request $request, string $number, DecideVerdict $action): JsonResponse
    {
        $in = $request->validate([
            'verdict' => 'required|string|max:40',
            'note' => 'nullable|string|max:600',
            'split' => 'required|array|min:1|max:6',
            'split.*' => 'numeric|min:0|max:100',
            'version' => 'required|integer',
        ]);
        $return = $this->find($number);
        $action->decide(
            $return,
            $in['verdict'],
            $in['note'] ?? '',
            array_map(floatval(...), $in['split']),
            $in['version'],
            $request->user(),
        );

        return $this->show($return);
    }

    public function rebuild(Request $request, string $number, StartSecondBuild $action): JsonResponse
    {
        $return = $this->find($number);
        $action->start($return, $request->user());

        return $this->show($return, 201);
    }

    private function find(string $number): UnitReturn
    {
        return UnitReturn::query()->where('number', $number)->firstOrFail();
    }

    private function show(UnitReturn $return, int $status = 200): JsonResponse
    {
        return response()->json($this->card->of($return->unit()->firstOrFail(), ['returns', 'dispatch']), $status);
    }
}
