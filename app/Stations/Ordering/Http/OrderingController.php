<?php

namespace App\Stations\Ordering\Http;

use App\Catalog\Models\Family;
use App\Catalog\Models\Variant;
use App\Catalog\Models\Vehicle;
use App\Stations\Ordering\Actions\PlaceOrder;
use App\Stations\Ordering\Actions\ReleaseBuild;
use App\Stations\Ordering\Duty;
use App\Stations\Ordering\Queries\OrderQuestion;
use App\Stations\Ordering\Queries\Quote;
use App\Stations\Ordering\Queries\Specification;
use App\Yard\Models\Unit;
use App\Yard\Queries\RouteCard;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

final class OrderingController
{
    private const ORDER = [
        'package' => 'required|string|max:60',
        'add' => 'array|max:60',
        'add.*' => 'string|max:60',
        'drop' => 'array|max:60',
        'drop.*' => 'string|max:60',
        'vehicle' => 'nullable|string|max:40',
        'duty' => 'nullable|array',
        'duty.engineTorque' => 'nullable|string|max:30',
        'duty.engineCurve' => 'nullable|string|max:600',
        'duty.shiftSpeed' => 'nullable|string|max:30',
        'duty.mass' => 'nullable|string|max:30',
        'duty.axle' => 'nullable|string|max:30',
        'duty.tyre' => 'nullable|string|max:30',
        'duty.grade' => 'nullable|string|max:30',
        'duty.hold' => 'boolean',
    ];

    public function preview(Request $request, string $number, Specification $resolve): JsonResponse
    {
        return response()->json($resolve->of(...$this->asked($request, $number)));
    }

    /** The same order as the JSON that core/bin/calc package.resolve reads. */
    public function calculation(Request $request, string $number): JsonResponse
    {
        return response()->json(
            OrderQuestion::of(...$this->asked($request, $number))->input,
            options: JSON_PRESERVE_ZERO_FRACTION | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES,
        );
    }

    /** @return array{Family, string, list<string>, list<string>, Duty|null, Variant|null} */
    private function asked(Request $request, string $number): array
    {
        $in = $request->validate(self::ORDER);
        $unit = Unit::byNumber($number);
        $vehicle = isset($in['vehicle']) ? Vehicle::query()->where('code', $in['vehicle'])->first() : null;

        return [
            $unit->family()->firstOrFail(),
            $in['package'],
            $in['add'] ?? [],
            $in['drop'] ?? [],
            Duty::of($in['duty'] ?? null, $vehicle),
            $unit->variant,
        ];
    }

    public function quote(string $number, Quote $quote): JsonResponse
    {
        return response()->json($quote->of(Unit::byNumber($number)));
    }

    public function order(Request $request, string $number, PlaceOrder $action, RouteCard $card): JsonResponse
    {
        $in = $request->validate(
            self::ORDER + [
                'customer' => 'nullable|string|max:20',
                'promisedOn' => 'nullable|date_format:Y-m-d',
                'version' => 'nullable|integer',
            ],
        );
        $unit = Unit::byNumber($number);
        $action->place($unit, $in, $request->user());

        return response()->json($card->of($unit, ['build']), 201);
    }

    public function release(Request $request, string $number, ReleaseBuild $action, RouteCard $card): JsonResponse
    {
        $in = $request->validate([
            'version' => 'required|integer',
            'acknowledged' => 'array|max:60',
            'acknowledged.*' => 'string|max:60',
        ]);
        $unit = Unit::byNumber($number);
        $action->release($unit, $in['version'], $in['acknowledged'] ?? [], $request->user());

        return response()->json($card->of($unit, ['build']));
    }
}
