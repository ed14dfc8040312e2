<?php

namespace App\Work\Contracts;

use App\Yard\Models\Unit;

/** What was done to this very unit before that the one at the bench must know. */
interface EarlierWork
{
    /** @return array<string, list<string>> sentences by the code of the bolts or of the drawn part they concern */
    public function on(Unit $unit): array;
}
