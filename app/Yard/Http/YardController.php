<?php

namespace App\Yard\Http;

use App\Catalog\Models\Part;
use App\Shop\Models\Customer;
use App\Yard\Gatekeeper;
use App\Yard\Models\Build;
use App\Yard\Models\Hold;
use App\Yard\Models\Unit;
use App\Yard\Queries\RouteCard;
use App\Yard\Queries\UnitSummary;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;

/** The yard at a glance, the list of units, one route card, its history, and the scan line. */
final class YardController
{
    private const STATIONS = ['identify', 'desk', 'teardown', 'bench', 'cell', 'dispatch', 'returns'];

    public function board(): JsonResponse
    {
        $counts = Unit::query()
            ->selectRaw('station, COUNT(*) AS n')
            ->whereIn('station', self::STATIONS)
            ->groupBy('station')
            ->pluck('n', 'station');
        $late = Unit::query()
            ->selectRaw('station, COUNT(*) AS n')
            ->whereIn('station', self::STATIONS)
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
            ->whereIn('station', self::STATIONS);
        $oldest = Unit::query()
            ->named()
            ->whereIn('units.id', DB::query()->fromSub($ranked, 'ranked')->where('place', '<=', 6)->select('id'))
            ->orderBy('station_since')
            ->orderBy('units.id')
            ->get()
            ->groupBy('station');

        return response()->json([
            'stations' => array_map(
                fn (string $s) => [
                    'station' => $s,
                    'units' => $counts[$s] ?? 0,
                    'late' => $late[$s] ?? 0,
                    'held' => $held[$s] ?? 0,
                    'oldest' => ($oldest[$s] ?? collect())->map(UnitSummary::of(...))->values(),
                ],
                self::STATIONS,
            ),
        ]);
    }

    public function units(Request $request): JsonResponse
    {
        $in = $request->validate([
            'station' => 'nullable|string|max:20',
            'late' => 'nullable|boolean',
            'before' => 'nullable|integer',
        ]);
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

    public function card(Request $request, string $number, RouteCard $card): JsonResponse
    {
        $in = $request->validate(['sections' => 'nullable|string|max:120']);

        return response()->json(
            $card->of(Unit::byNumber($number), isset($in['sections']) ? explode(',', $in['sections']) : null),
        );
    }

    public function history(Request $request, string $number): JsonResponse
    {
        $in = $request->validate(['before' => 'nullable|integer']);
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

    /** Whatever was scanned or typed: exact hits first, then what begins like it. */
    public function find(Request $request): JsonResponse
    {
        $q = trim($request->validate(['q' => 'required|string|max:60'])['q']);
        $upper = mb_strtoupper($q);
        $like = addcslashes($q, '%_\\').'%';
        $hits = [];
        $add = function (string $kind, string $text, string $detail, string $to) use (&$hits): void {
            $hits["$kind:$to:$text"] = ['kind' => $kind, 'text' => $text, 'detail' => $detail, 'to' => $to];
        };
        foreach (
            Build::query()
                ->with('unit:id,core_tag')
                ->where('serial', 'like', addcslashes($upper, '%_\\').'%')
                ->orderBy('serial')
                ->limit(6)
                ->get() as $b
        ) {
            $add('Unit serial', (string) $b->serial, 'core '.$b->unit->core_tag, '/units/'.$b->unit->core_tag);
        }
        foreach (
            Unit::query()
                ->where('core_tag', 'like', addcslashes($upper, '%_\\').'%')
                ->orderBy('core_tag')
                ->limit(6)
                ->get() as $u
        ) {
            $add('Core tag', $u->core_tag, Gatekeeper::STATION_NAMES[$u->station], "/units/$u->core_tag");
        }
        if (strlen($upper) >= 5) {
            foreach (
                Unit::query()
                    ->where('vin', 'like', addcslashes($upper, '%_\\').'%')
                    ->limit(6)
                    ->get() as $u
            ) {
                $add('VIN', (string) $u->vin, "core $u->core_tag", "/units/$u->core_tag");
            }
        }
        foreach (
            DB::table('returns')
                ->join('units', 'units.id', '=', 'returns.unit_id')
                ->where('number', $upper)
                ->limit(3)
                ->get(['number', 'core_tag']) as $r
        ) {
            $add('Return', $r->number, "core $r->core_tag", "/units/$r->core_tag/return");
        }
        foreach (
            DB::table('stock_lots')
                ->where('lot', $upper)
                ->limit(3)
                ->get(['lot']) as $l
        ) {
            $add('Lot', $l->lot, 'which units carry it', '/lots/'.rawurlencode($l->lot));
        }
        foreach (
            DB::table('baskets')
                ->join('units', 'units.id', '=', 'baskets.unit_id')
                ->where('tag', $upper)
                ->get(['tag', 'core_tag']) as $t
        ) {
            $add('Tray', $t->tag, "core $t->core_tag", "/units/$t->core_tag");
        }
        foreach (
            DB::table('converters')
                ->leftJoin('units', 'units.id', '=', 'converters.core_unit_id')
                ->where('serial', $upper)
                ->get(['serial', 'core_tag']) as $c
        ) {
            $add(
                'Converter',
                $c->serial,
                $c->core_tag === null ? '' : "came with $c->core_tag",
                $c->core_tag === null ? '/' : "/units/$c->core_tag",
            );
        }
        foreach (
            Part::query()
                ->where('number', 'like', $like)
                ->orWhereFullText(['number', 'name', 'aliases'], $q)
                ->limit(6)
                ->get() as $p
        ) {
            $add('Part', $p->number, $p->name, '/stock?q='.rawurlencode($p->number));
        }
        foreach (Customer::query()->where('name', 'like', $like)->orWhere('code', $upper)->limit(4)->get() as $c) {
            $add('Customer', $c->name, $c->city, '/units?customer='.rawurlencode($c->code));
        }

        return response()->json(['hits' => array_values($hits)]);
    }
}
