<?php

namespace App\Stations\Assembly\Queries;

use App\Work\Bench;
use App\Work\Queries\BenchWork;
use App\Work\Queries\OpenWork;
use App\Yard\Contracts\Blocker;
use App\Yard\Gate;
use App\Yard\Models\Unit;

/** What still bars the signature of the builder. */
final class OpenAssembly
{
    /** @return list<Blocker> */
    public function of(Unit $unit, ?BenchWork $work = null): array
    {
        if ($unit->currentBuild === null || $unit->currentBuild->spec === null) {
            return [];
        }

        return OpenWork::at($work ?? BenchWork::of($unit, Bench::Assembly), Gate::SignOff);
    }
}
