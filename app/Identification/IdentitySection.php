<?php

namespace App\Identification;

use App\Shop\Names;
use App\Track\CardSection;
use App\Track\Unit;

final class IdentitySection implements CardSection
{
    public function __construct(private readonly RankVariants $rank, private readonly Names $names)
    {
    }

    public function key(): string
    {
        return 'identity';
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

        return $this->rank->of($unit, $unit->family) + ['decisions' => Identification::query()->with('variant:id,code,name')->where('unit_id', $unit->id)->orderBy('id')->get()->map(fn (Identification $d) => [
            'outcome' => $d->outcome, 'variant' => $d->variant?->code, 'posterior' => $d->posterior === null ? null : (float) $d->posterior, 'foreignParts' => $d->foreign_parts, 'note' => $d->note, 'by' => $this->names->of($d->decided_by), 'at' => $d->decided_at->toIso8601ZuluString(),
        ])->all()];
    }
}
