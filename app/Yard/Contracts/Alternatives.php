<?php

namespace App\Yard\Contracts;

use App\Yard\Models\Unit;

/** What a customer can be offered in place of the work on their unit, with cost, price and days. */
interface Alternatives
{
    /**
     * @return list<array{what: string, price: float, cost: float, left: float, days: int, note: string}> this build
     *     first; none while nothing is ordered
     */
    public function of(Unit $unit): array;
}
