<?php

namespace App\Yard\Contracts;

/** A record that belongs to a unit and is written under the unit's lock. */
interface OfUnit
{
    public function unitId(): int;
}
