<?php

namespace App\Yard\Queries;

use App\Yard\Models\Unit;
use Illuminate\Support\Facades\DB;

/** What the ledger has of a unit, the newest first, fifty at a time. */
final class UnitHistory
{
    /** @return array<string, mixed> */
    public function of(Unit $unit, ?int $before): array
    {
        $rows = DB::table('ledger')
            ->leftJoin('people', 'people.badge', '=', 'ledger.badge')
            ->where('unit_id', $unit->id)
            ->when($before !== null, fn ($q) => $q->where('ledger.id', '<', $before))
            ->orderByDesc('ledger.id')
            ->limit(51)
            ->get(['ledger.id', 'seq', 'at', 'tablet_at', 'ledger.badge', 'people.name', 'kind', 'payload', 'hash']);

        return [
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
            'before' => $rows->count() > 50 ? $rows->get(49)?->id : null,
        ];
    }
}
