<?php

namespace App\Yard\Contracts;

use App\Yard\Models\Unit;

/** What must be done in the vehicle before the warranty of a unit starts. */
interface WarrantyConditions
{
    /** @return list<array{name: string, condition: string, settled: ?string}> settled: by whom, how and when */
    public function of(Unit $unit): array;
}
