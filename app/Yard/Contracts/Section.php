<?php

namespace App\Yard\Contracts;

use App\Yard\Models\Unit;

/** What one station adds to the route card. Stations read their own tables here, and nobody else does. */
interface Section
{
    /** Whether the station has anything to show yet; must cost no query beyond the unit itself. */
    public function has(Unit $unit): bool;

    /** @return array<string, mixed>|null null while the station has nothing to show */
    public function of(Unit $unit): ?array;
}
