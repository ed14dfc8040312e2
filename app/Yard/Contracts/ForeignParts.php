<?php

namespace App\Yard\Contracts;

use App\Yard\Models\Unit;

/** Parts of other variants that a confirmed core carries: what must be known before anything is ordered. */
interface ForeignParts
{
    /** @return list<array{feature: ?string, part: string, seen: ?string, from: list<string>, ordering: string}> */
    public function of(Unit $unit): array;
}
