<?php

namespace App\Catalog\Read;

use App\Catalog\Models\Family;
use App\Kernel\Refusal;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Route;
use Yard\Core\BadInput;
use Yard\Core\Drivetrain\ApplyChart;
use Yard\Core\Dyno\ProgramPlan;
use Yard\Core\Input;

/** A program of the cell gone through before anybody runs it. It computes and stores nothing. */
final class ProgramController
{
    public static function routes(): void
    {
        Route::post('catalog/program-plan', [self::class, 'plan']);
    }

    public function plan(Request $request): JsonResponse
    {
        $in = $request->validate(['family' => 'required|string|max:40', 'body' => 'required|array']);
        $family = Family::query()->where('code', $in['family'])->first() ??
            throw Refusal::at('/family', "There is no family {$in['family']}.");
        $body = json_decode((string) $request->getContent())->body ?? null;
        try {
            $ratios = ApplyChart::read(Input::of($family->train))->ratios();

            $plan = ProgramPlan::read(Input::of($body), $ratios, StallAllowed::seconds($family));

            return response()->json($plan->report());
        } catch (BadInput $e) {
            throw Refusal::at("/body$e->path", $e->getMessage());
        }
    }
}
