<?php

namespace App\Stations\Teardown\Http;

use App\Kernel\Refusal;
use App\Shop\Http\SignedRequest;
use App\Stations\Teardown\Actions\AskForExtraWork;
use App\Stations\Teardown\Actions\LendPart;
use App\Stations\Teardown\Actions\NameVehicleCause;
use App\Stations\Teardown\Queries\KnownCosts;
use App\Stations\Teardown\Queries\TeardownAccount;
use App\Yard\Http\Write;
use App\Yard\Models\Unit;
use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\Route;

/** Money, questions to the customer, causes in the vehicle and parts on loan of one unit. */
final class AccountController
{
    public function __construct(private readonly TeardownAccount $account)
    {
    }

    public static function routes(): void
    {
        $at = 'units/{number}/teardown';
        Route::get("$at/account", [self::class, 'show']);
        // What it costs is reckoned with the whole order, so it is asked for by itself.
        Route::get("$at/costs", [self::class, 'costs']);
        Write::with('teardown.work')->post("$at/extra-work", [self::class, 'ask']);
        Write::with('yard.hold')->post("$at/extra-work/{id}/answer", [self::class, 'answer']);
        Write::with('teardown.work')->post("$at/vehicle-causes", [self::class, 'nameCause']);
        Write::with('yard.hold')->post("$at/vehicle-causes/{id}/settled", [self::class, 'settle']);
        Write::with('yard.hold')->post("$at/loans", [self::class, 'lend']);
        Write::with('yard.hold')->post("$at/loans/{id}/out", [self::class, 'takeOut']);
    }

    public function show(string $number): JsonResponse
    {
        return $this->account(Unit::byNumber($number));
    }

    public function costs(string $number, KnownCosts $costs): JsonResponse
    {
        $unit = Unit::byNumber($number);
        if ($unit->family_id === null) {
            throw new Refusal('Nothing is known of the inside of this unit yet.', 409);
        }

        return response()->json($costs->of($unit));
    }

    public function ask(AskExtraWorkRequest $request, string $number, AskForExtraWork $action): JsonResponse
    {
        $in = $request->validated();
        $unit = Unit::byNumber($number);
        $action->ask($unit, $in['text'], (float) $in['hours'], (float) $in['price'], $request->person());

        return $this->account($unit, 201);
    }

    public function answer(
        AnswerExtraWorkRequest $request,
        string $number,
        int $id,
        AskForExtraWork $action,
    ): JsonResponse {
        $unit = Unit::byNumber($number);
        $action->answer($unit, $id, $request->validated(), $request->person());

        return $this->account($unit);
    }

    public function nameCause(NameVehicleCauseRequest $request, string $number, NameVehicleCause $action): JsonResponse
    {
        $in = $request->validated();
        $unit = Unit::byNumber($number);
        $action->name($unit, $in['cause'], trim($in['note'] ?? ''), $request->person());

        return $this->account($unit, 201);
    }

    public function settle(
        SettleVehicleCauseRequest $request,
        string $number,
        int $id,
        NameVehicleCause $action,
    ): JsonResponse {
        $in = $request->validated();
        $unit = Unit::byNumber($number);
        $action->settle($unit, $id, $in['who'], $in['how'], $request->person());

        return $this->account($unit);
    }

    public function lend(LendPartRequest $request, string $number, LendPart $action): JsonResponse
    {
        $unit = Unit::byNumber($number);
        $action->fit($unit, $request->validated(), $request->person());

        return $this->account($unit, 201);
    }

    public function takeOut(SignedRequest $request, string $number, int $id, LendPart $action): JsonResponse
    {
        $unit = Unit::byNumber($number);
        $action->takeOut($unit, $id, $request->person());

        return $this->account($unit);
    }

    private function account(Unit $unit, int $status = 200): JsonResponse
    {
        return response()->json($this->account->of($unit), $status);
    }
}
