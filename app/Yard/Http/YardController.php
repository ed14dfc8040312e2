<?php

namespace App\Yard\Http;

use App\Kernel\Refusal;
use App\Kernel\SortedPages;
use App\Shop\Http\SignedRequest;
use App\Shop\RuleDefinition;
use App\Yard\Models\Unit;
use App\Yard\Queries\DayOfTheManager;
use App\Yard\Queries\RouteCard;
use App\Yard\Queries\RuleReach;
use App\Yard\Queries\StationQueue;
use App\Yard\Queries\UnitHistory;
use App\Yard\Queries\UnitList;
use App\Yard\Queries\UnitSummary;
use App\Yard\Queries\YardBoard;
use App\Yard\Queries\YardPlan;
use App\Yard\Rooms;
use App\Yard\StationName;
use Illuminate\Http\JsonResponse;

/** The yard at a glance, the list of units, one route card, its history, and the scan line. */
final class YardController
{
    public function board(YardBoard $board): JsonResponse
    {
        return response()->json(['stations' => $board->stations()]);
    }

    /** What waits at one station, for whoever works there. */
    public function queue(SignedRequest $request, string $station, StationQueue $queue): JsonResponse
    {
        $name = StationName::tryFrom($station);
        if ($name === null || ! in_array($name, StationName::working(), true)) {
            throw new Refusal("There is no station \"$station\" where units wait.", 404);
        }

        return response()->json($queue->of($name, $request->person()));
    }

    public function day(DayOfTheManager $day): JsonResponse
    {
        return response()->json($day->today());
    }

    public function plan(YardPlan $plan): JsonResponse
    {
        return response()->json($plan->drawn());
    }

    /** What a change of the rule would meet today. */
    public function reach(string $code, RuleReach $reach): JsonResponse
    {
        $rule = RuleDefinition::all()[$code] ?? throw new Refusal("There is no house rule \"$code\".", 404);

        return response()->json($reach->of($rule));
    }

    public function units(UnitListRequest $request, UnitList $units): JsonResponse
    {
        $in = $request->validated();
        $page = $units->page($in, (int) config('yard.page_size'));

        return response()->json([
            'total' => $units->total($in),
            'customer' => $units->customer($in),
            'units' => array_map(UnitSummary::of(...), $page->items()),
            'after' => SortedPages::after($page),
        ]);
    }

    public function card(RouteCardRequest $request, string $number, RouteCard $card): JsonResponse
    {
        return response()->json($card->numbered($number, $request->sections()));
    }

    public function history(UnitHistoryRequest $request, string $number, UnitHistory $history): JsonResponse
    {
        return response()->json($history->of(Unit::byNumber($number), $request->validated()['before'] ?? null));
    }

    /** Whatever was scanned or typed: each room is asked, exact hits before what begins like it. */
    public function find(ScanRequest $request): JsonResponse
    {
        $typed = trim($request->validated()['q']);
        $hits = [];
        foreach (preg_match('/[\p{L}\p{N}]/u', $typed) === 1 ? Rooms::all() : [] as $room) {
            array_push($hits, ...app($room)->scan($typed));
        }

        return response()->json(['hits' => $hits]);
    }
}
