<?php

namespace App\Stations\Teardown\Queries;

use App\Catalog\Models\FamilySpec;
use App\Stations\Teardown\Models\Finding;
use App\Yard\Contracts\HardPartLosses;
use App\Yard\Models\Unit;
use App\Yard\StationName;

/** What teardown found of the hard parts that decide a core's worth: a question other stations may ask. */
final class LostHardParts implements HardPartLosses
{
    /**
     * @return list<string> part numbers of the family's hard parts that are scrapped or must be replaced,
     *     damage of our own left out
     */
    public function of(Unit $unit): array
    {
        $hard = $unit->family->body['hardParts'] ?? [];
        $numbers = FamilySpec::query()
            ->where('family_id', $unit->family_id)
            ->where('kind', 'finding')
            ->get()
            ->mapWithKeys(fn (FamilySpec $s) => [$s->code => $s->body['part']])
            ->all();

        return array_values(
            Finding::query()
                ->where('unit_id', $unit->id)
                ->where('generation', 1)
                ->whereIn('disposition', ['scrap', 'replace'])
                ->where('ours', false)
                ->pluck('part')
                ->map(fn (string $code) => $numbers[$code] ?? '')
                ->filter(fn (string $number) => in_array($number, $hard, true))
                ->unique() // one part may stand on the list twice: looked at, and measured
                ->values()
                ->all(),
        );
    }

    public function tornDown(Unit $unit): bool
    {
        return ! in_array(
            $unit->station,
            [StationName::Identification, StationName::Ordering, StationName::Teardown],
            true,
        ) && Finding::query()->where('unit_id', $unit->id)->where('generation', 1)->exists();
    }
}
