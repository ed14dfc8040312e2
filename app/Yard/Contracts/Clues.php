<?php

namespace App\Yard\Contracts;

use App\Shop\Models\Person;
use App\Yard\Models\Unit;

/** Takes what somebody saw of a feature, wherever it was seen, so that it is not asked again. */
interface Clues
{
    /** @param  string|null  $value  null takes an answer back */
    public function answer(Unit $unit, string $feature, ?string $value, Person $by): void;
}
