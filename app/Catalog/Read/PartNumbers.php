<?php

namespace App\Catalog\Read;

use App\Catalog\Models\Part;
use App\Yard\Contracts\ScanHit;

/** Parts by number, name or other number. */
final class PartNumbers
{
    /** @return list<ScanHit> */
    public function scan(string $typed): array
    {
        return array_values(Part::called($typed)
            ->limit(6)
            ->get('parts.*')
            ->map(fn (Part $p) => new ScanHit('Part', $p->number, $p->name, '/stock?q='.rawurlencode($p->number)))
            ->values()
            ->all());
    }
}
