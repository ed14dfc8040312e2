<?php

namespace App\Work\Contracts;

use App\Yard\Models\Unit;

/** What has come to light of a unit that asks for work of its own. */
interface Circumstances
{
    /** @return list<string> codes, as operations name them in `onlyIf` */
    public function of(Unit $unit): array;
}
