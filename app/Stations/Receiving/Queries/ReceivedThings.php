<?php

namespace App\Stations\Receiving\Queries;

use App\Stations\Receiving\Models\Converter;
use App\Stations\Receiving\Models\Tray;
use App\Yard\Contracts\ScanHit;

/** Trays and converters by their own numbers. */
final class ReceivedThings
{
    /** @return list<ScanHit> */
    public function scan(string $typed): array
    {
        $code = mb_strtoupper($typed);
        $trays = Tray::query()->with('unit:id,core_tag')->whereNotNull('unit_id')->where('tag', $code)->get();
        $converters = Converter::query()->with('coreUnit:id,core_tag')->where('serial', $code)->get();

        return [
            ...$trays->map(
                fn (Tray $t) => new ScanHit(
                    'Tray',
                    $t->tag,
                    "core {$t->unit?->core_tag}",
                    "/units/{$t->unit?->core_tag}/receiving",
                ),
            ),
            ...$converters->map(
                fn (Converter $c) => new ScanHit(
                    'Converter',
                    $c->serial,
                    $c->coreUnit === null ? '' : "came with {$c->coreUnit->core_tag}",
                    $c->coreUnit === null ? '/' : "/units/{$c->coreUnit->core_tag}/receiving",
                ),
            ),
        ];
    }
}
