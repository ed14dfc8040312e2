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
use App\Stations\Ordering\Queries\TodaysDifference;
use App\Yard\AskedOrder;
use App\Yard\Models\Unit;
use App\Yard\Queries\RouteCard;
use Illuminate\Http\JsonResponse;

final class OrderingController
{
    public function preview(OrderRequest $request, string $number, Specification $resolve): JsonResponse
    {
        return response()->json($resolve->of(...$this->asked($request, $number)));
    }

    /** The same order as the JSON that core/bin/calc package.resolve reads. */
    public function calculation(OrderRequest $request, string $number): JsonResponse
    {
        return response()->json(
            OrderQuestion::of(...$this->asked($request, $number))->input,
            options: JSON_PRESERVE_ZERO_FRACTION | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES,
        );
    }

    /** @return array{Family, AskedOrder, Duty|null, Variant|null} */
    private function asked(OrderRequest $request, string $number): array
    {
        $in = $request->validated();
        $unit = Unit::byNumber($number);
        $vehicle = isset($in['vehicle']) ? Vehicle::query()->where('code', $in['vehicle'])->first() : null;

        $asked = AskedOrder::read($in);

        return [$unit->family()->firstOrFail(), $asked, Duty::of($asked->duty, $vehicle), $unit->variant];
    }

    public function difference(string $number, TodaysDifference $difference): JsonResponse
    {
        return response()->json(['differs' => $difference->of(Unit::byNumber($number))]);
    }

    public function quote(string $number, Quote $quote): JsonResponse
    {
        return response()->json($quote->quote(Unit::byNumber($number)));
    }

    public function order(
        PlaceOrderRequest $request,
        string $number,
        PlaceOrder $action,
        RouteCard $card,
    ): JsonResponse {
        $in = $request->validated();
        $unit = Unit::byNumber($number);
        $action->place($unit, $in, $request->person());

        return response()->json($card->of($unit, ['ordering']), 201);
    }

    public function release(
        ReleaseBuildRequest $request,
        string $number,
        ReleaseBuild $action,
        RouteCard $card,
    ): JsonResponse {
        $in = $request->validated();
        $unit = Unit::byNumber($number);
        $action->release($unit, $in['version'], $in['acknowledged'] ?? [], $request->person());

        return response()->json($card->of($unit, ['ordering']));
    }
}
