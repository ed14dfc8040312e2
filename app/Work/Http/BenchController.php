<?php

namespace App\Work\Http;

use App\Work\Actions\MoveOperation;
use App\Work\Actions\TakeProof;
use App\Work\Bench;
use App\Yard\Http\Write;
use App\Yard\Models\Unit;
use App\Yard\Queries\RouteCard;
use Illuminate\Http\JsonResponse;

/** The one bench: a proof of any kind, and what else can happen to an operation, whichever station it belongs to. */
final class BenchController
{
    public function __construct(private readonly RouteCard $card)
    {
    }

    public static function routes(Bench $bench): void
    {
        $at = "units/{number}/$bench->value/operations/{operation}";
        $write = fn () => Write::with("$bench->value.work");
        $write()->post("$at/proofs/{proof}", [self::class, 'proof'])->defaults('bench', $bench->value);
        $write()->post("$at/moves", [self::class, 'move'])->defaults('bench', $bench->value);
    }

    public function proof(
        ProofRequest $request,
        string $number,
        string $operation,
        string $proof,
        TakeProof $action,
    ): JsonResponse {
        $bench = Bench::from((string) $request->route('bench'));
        $unit = Unit::byNumber($number);
        $action->take($unit, $bench, $operation, $proof, $request->answer(), $request->person());

        return response()->json($this->card->of($unit, [$bench->value]));
    }

    public function move(MoveRequest $request, string $number, string $operation, MoveOperation $action): JsonResponse
    {
        $bench = Bench::from((string) $request->route('bench'));
        $unit = Unit::byNumber($number);
        $action->move($unit, $bench, $operation, $request->wanted(), $request->answer(), $request->person());

        return response()->json($this->card->of($unit, [$bench->value]));
    }
}
