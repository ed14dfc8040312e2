<?php

namespace App\Work;

use App\Yard\Models\Unit;
use App\Yard\StationName;

/** Which build of the unit the work belongs to. A teardown after a return belongs to the build that comes out of it. */
final class Generation
{
    public static function of(Unit $unit, string $phase): int
    {
        $current = $unit->currentBuild === null ? 1 : $unit->currentBuild->generation;

        return $phase === 'teardown' && $unit->station === StationName::Returns ? $current + 1 : $current;
    }
}
