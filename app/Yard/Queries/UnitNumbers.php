<?php

namespace App\Yard\Queries;

use App\Yard\Contracts\ScanHit;
use App\Yard\Models\Build;
use App\Yard\Models\Unit;

/** Units by serial, core tag or VIN. */
final class UnitNumbers
{
    /** @return list<ScanHit> */
    public function scan(string $typed): array
    {
        $begins = addcslashes(mb_strtoupper($typed), '%_\\').'%';
        $serials = Build::query()
            ->with('unit:id,core_tag')
            ->where('serial', 'like', $begins)
            ->orderBy('serial')
            ->limit(6)
            ->get();
        $tags = Unit::query()->where('core_tag', 'like', $begins)->orderBy('core_tag')->limit(6)->get();
        $vins = strlen($typed) < 5 ? [] : Unit::query()->where('vin', 'like', $begins)->limit(6)->get();

        return array_values([
            ...$serials->map(
                fn (Build $b) => new ScanHit(
                    'Unit serial',
                    (string) $b->serial,
                    "core {$b->unit->core_tag}",
                    "/units/{$b->unit->core_tag}",
                ),
            ),
            ...$tags->map(
                fn (Unit $u) => new ScanHit('Core tag', $u->core_tag, $u->station->inWords(), "/units/$u->core_tag"),
            ),
            ...collect($vins)->map(
                fn (Unit $u) => new ScanHit('VIN', (string) $u->vin, "core $u->core_tag", "/units/$u->core_tag"),
            ),
        ]);
    }
}
