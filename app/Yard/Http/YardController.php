<?php

namespace App\Yard\Http;

use App\Kernel\Refusal;
use App\Shop\Http\SignedRequest;
use App\Yard\Models\Hold;
use App\Yard\Models\Unit;
use App\Yard\Queries\DayOfTheManager;
use App\Yard\Queries\RouteCard;
use App\Yard\Queries\StationQueue;
use App\Yard\Queries\UnitSummary;
use App\Yard\Queries\YardPlan;
use App\Yard\Rooms;
use App\Yard\StationName;
use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\DB;

/** The yard at a glance, the list of units, one route card, its history, and the scan line. */
final class YardController
{
    public function board(): JsonResponse
    {
        $counts = Unit::query()
            ->selectRaw('station, COUNT(*) AS n')
            ->whereIn('station', StationName::working())
            ->groupBy('station')
            ->pluck('n', 'station');
        $late = Unit::query()
            ->selectRaw('station, COUNT(*) AS n')
            ->whereIn('station', StationName::working())
            ->where('promised_on', '<', now()->format('Y-m-d'))
            ->groupBy('station')
            ->pluck('n', 'station');
        $held = Hold::query()
            ->join('units', 'units.id', '=', 'holds.unit_id')
            ->whereNull('lifted_at')
            ->selectRaw('station, COUNT(DISTINCT unit_id) AS n')
            ->groupBy('station')
            ->pluck('n', 'station');

        $ranked = Unit::query()
            ->selectRaw('id, ROW_NUMBER() OVER (PARTITION BY station ORDER BY station_since, id) AS place')
            ->whereIn('station', StationName::working());
        $oldest = Unit::query()
            ->named()
            ->whereIn('units.id', DB::query()->fromSub($ranked, 'ranked')->where('place', '<=', 6)->select('id'))
            ->orderBy('station_since')
            ->orderBy('units.id')
            ->get()
            ->groupBy(fn (Unit $u) => $u->station->value);

        return response()->json([
            'stations' => array_map(
                fn (StationName $s) => [
                    'station' => $s,
                    'units' => $counts[$s->value] ?? 0,
                    'late' => $late[$s->value] ?? 0,
                    'held' => $held[$s->value] ?? 0,
                    'oldest' => ($oldest[$s->value] ?? collect())->map(UnitSummary::of(...))->values(),
                ],
                StationName::working(),
            ),
        ]);
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

    public function units(UnitListRequest $request): JsonResponse
    {
        $in = $request->validated();
        $query = Unit::query()
            ->named()
            ->orderByDesc('units.id')
            ->limit(config('yard.page_size') + 1);
        isset($in['station']) && $query->where('station', $in['station']);
        ($in['late'] ?? false) &&
            $query
                ->whereNotIn('station', ['field', 'closed'])
                ->where('units.promised_on', '<', now()->format('Y-m-d'));
        isset($in['before']) && $query->where('units.id', '<', $in['before']);
        $rows = $query->get();
        $page = $rows->take(config('yard.page_size'));

        return response()->json([
            'units' => $page->map(UnitSummary::of(...))->values(),
            'before' => $rows->count() > $page->count() ? $page->last()->id : null,
        ]);
    }

    public function card(RouteCardRequest $request, string $number, RouteCard $card): JsonResponse
    {
        $in = $request->validated();

        return response()->json(
            $card->of(Unit::byNumber($number), isset($in['sections']) ? explode(',', $in['sections']) : null),
        );
    }

    public function history(UnitHistoryRequest $request, string $number): JsonResponse
    {
        $in = $request->validated();
        $unit = Unit::byNumber($number);
        $rows = DB::table('ledger')
            ->leftJoin('people', 'people.badge', '=', 'ledger.badge')
            ->where('unit_id', $unit->id)
            ->when(isset($in['before']), fn ($q) => $q->where('ledger.id', '<', $in['before']))
            ->orderByDesc('ledger.id')
            ->limit(51)
            ->get(['ledger.id', 'seq', 'at', 'tablet_at', 'ledger.badge', 'people.name', 'kind', 'payload', 'hash']);

        return response()->json([
            'events' => $rows
                ->take(50)
                ->map(
                    fn ($e) => [
                        'seq' => $e->seq,
                        'at' => substr(str_replace(' ', 'T', $e->at), 0, 19).'Z',
                        'by' => $e->name ?? $e->badge,
                        'kind' => $e->kind,
                        'payload' => json_decode($e->payload),
                        'hash' => substr($e->hash, 0, 12),
                    ],
                )
                ->values(),
            'before' => $rows->count() > 50 ? $rows[49]->id : null,
        ]);
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
