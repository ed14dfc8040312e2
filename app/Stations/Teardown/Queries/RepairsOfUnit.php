<?php

namespace App\Stations\Teardown\Queries;

use App\Stations\Teardown\Models\Repair;
use App\Work\Contracts\EarlierWork;
use App\Yard\Models\Unit;

/** Repairs of this unit, this time and every time before, said where they bite. */
final class RepairsOfUnit implements EarlierWork
{
    public function on(Unit $unit): array
    {
        $said = [];
        foreach (Repair::query()->where('unit_id', $unit->id)->orderBy('id')->get() as $r) {
            $said[$r->place][] = "{$r->done_at->format('j M Y')}: $r->trouble, $r->method_name. $r->check_after"
                .($r->note === '' ? '' : " $r->note");
        }

        return $said;
    }
}
