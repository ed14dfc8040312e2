<?php

namespace App\Stations\Identification\Queries;

use App\Shop\Queries\PeopleNames;
use App\Stations\Identification\Models\Identification;
use App\Yard\Contracts\Section;
use App\Yard\Models\Unit;

final class IdentificationSection implements Section
{
    public function __construct(private readonly VariantRanking $rank, private readonly PeopleNames $names)
    {
    }

    public function has(Unit $unit): bool
    {
        return $unit->family_id !== null;
    }

    public function of(Unit $unit): ?array
    {
        if ($unit->family === null) {
            return null;
        }

        return $this->rank->of($unit, $unit->family) + [
            'decisions' => Identification::query()
                ->with('variant:id,code,name')
                ->where('unit_id', $unit->id)
                ->orderBy('id')
                ->get()
                ->map(
                    fn (Identification $d) => [
                        'outcome' => $d->outcome,
                        'variant' => $d->variant?->code,
                        'posterior' => $d->posterior === null ? null : (float) $d->posterior,
                        'foreignParts' => $d->foreign_parts,
                        'note' => $d->note,
                        'by' => $this->names->of($d->decided_by),
                        'at' => $d->decided_at->toIso8601ZuluString(),
                    ],
                )
                ->all(),
        ];
    }
}
