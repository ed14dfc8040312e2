<?php

namespace App\Yard\Contracts;

use App\Yard\Models\Unit;

/** What teardown found of the hard parts that decide a core's worth. */
interface HardPartLosses
{
    /**
     * @return list<string> part numbers of the family's hard parts that are scrapped or must be replaced, damage of
     *     our own left out
     */
    public function of(Unit $unit): array;

    public function tornDown(Unit $unit): bool;
}
