<?php

namespace App\Shop\Queries;

use Illuminate\Support\Facades\DB;

/** Work that was handed over and is not done yet. */
final class WaitingWork
{
    /** @return array{waiting: int, longest: int, failed: int} pieces of work; seconds the oldest waits */
    public function counted(): array
    {
        $waiting = DB::table('jobs')
            ->where('available_at', '<=', time())
            ->selectRaw('COUNT(*) AS n, MIN(available_at) AS oldest')
            ->sole();

        return [
            'waiting' => (int) $waiting->n,
            'longest' => $waiting->n === 0 ? 0 : time() - (int) $waiting->oldest,
            'failed' => DB::table('failed_jobs')->count(),
        ];
    }
}
