<?php

namespace App\Yard\Contracts;

use App\Yard\Gate;
use App\Yard\Models\Unit;

/** A room on the way of a unit: it adds a section to the route card and may bar a gate. */
interface Station extends Room
{
    public function section(): Section;

    /** @return list<Blocker> what this station has against the unit going through the gate now */
    public function blockers(Unit $unit, Gate $gate): array;
}
