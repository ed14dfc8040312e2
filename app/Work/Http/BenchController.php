<?php

namespace App\Work\Http;

use App\Kernel\Refusal;
use App\Work\Actions\DecideDiscrepancy;
use App\Work\Actions\MoveOperation;
use App\Work\Actions\SpeakNote;
use App\Work\Actions\TakeProof;
use App\Work\Bench;
use App\Work\Decision;
use App\Work\Models\Recording;
use App\Work\Queries\ReachPlan;
use App\Yard\Http\Write;
use App\Yard\Models\Unit;
use App\Yard\Queries\RouteCard;
use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\Route;
use Symfony\Component\HttpFoundation\BinaryFileResponse;

/** The one bench: a proof of any kind, and what else can happen to an operation, whichever station it belongs to. */
final class BenchController
{
    public function __construct(private readonly RouteCard $card)
    {
    }

    public static function routes(Bench $bench): void
    {
        $at = "units/{number}/$bench->value/operations/{operation}";
        $write = fn () => Write::with($bench->ability());
        $write()->post("$at/proofs/{proof}", [self::class, 'proof'])->defaults('bench', $bench->value);
        $write()->post("$at/moves", [self::class, 'move'])->defaults('bench', $bench->value);
        $write()->post("$at/recordings", [self::class, 'speak'])->defaults('bench', $bench->value);
        Route::get("units/{number}/$bench->value/recordings/{recording}", [self::class, 'listen']);
        if ($bench === Bench::Teardown) {
            Route::get("units/{number}/$bench->value/reach", [self::class, 'reach'])->defaults('bench', $bench->value);
            $write()->post("units/{number}/$bench->value/discrepancies/{discrepancy}", [self::class, 'decide'])
                ->defaults('bench', $bench->value);
        }
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

    public function speak(SpokenRequest $request, string $number, string $operation, SpeakNote $action): JsonResponse
    {
        $bench = Bench::from((string) $request->route('bench'));
        $unit = Unit::byNumber($number);
        $sound = $request->validated('sound');
        $action->speak($unit, $bench, $operation, $sound, $request->answer(), $request->person());

        return response()->json($this->card->of($unit, [$bench->value]));
    }

    public function listen(string $number, Recording $recording): BinaryFileResponse
    {
        $file = config('yard.state').'/app/'.$recording->path;
        if ($recording->unit_id !== Unit::byNumber($number)->id || ! is_file($file)) {
            throw new Refusal('There is no such recording of this unit.', 404);
        }
        if (hash_file('sha256', $file) !== $recording->sha256) {
            throw new Refusal('The file of this recording is not the one that was spoken.', 409);
        }

        return response()->file($file, [
            'Content-Type' => $recording->type,
            'Cache-Control' => 'private, max-age=31536000, immutable',
        ]);
    }

    public function decide(
        DecideDiscrepancyRequest $request,
        string $number,
        string $discrepancy,
        DecideDiscrepancy $action,
    ): JsonResponse {
        $bench = Bench::from((string) $request->route('bench'));
        $unit = Unit::byNumber($number);
        $decision = Decision::from($request->validated('decision'));
        $note = trim($request->validated('note') ?? '');
        $action->decide($unit, $bench, (int) $discrepancy, $decision, $note, $request->person());

        return response()->json($this->card->of($unit, [$bench->value]));
    }

    public function reach(ReachRequest $request, string $number, ReachPlan $plan): JsonResponse
    {
        $bench = Bench::from((string) $request->route('bench'));

        return response()->json($plan->of(Unit::byNumber($number), $bench, $request->validated('part')));
    }

    public function move(MoveRequest $request, string $number, string $operation, MoveOperation $action): JsonResponse
    {
        $bench = Bench::from((string) $request->route('bench'));
        $unit = Unit::byNumber($number);
        $action->move($unit, $bench, $operation, $request->wanted(), $request->answer(), $request->person());

        return response()->json($this->card->of($unit, [$bench->value]));
    }
}
