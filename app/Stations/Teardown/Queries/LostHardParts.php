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
        $list = array_column(FamilySpec::bodies((int) $unit->family_id, 'finding'), null, 'code');
        $findings = Finding::query()
            ->where('unit_id', $unit->id)
            ->where('generation', 1)
            ->whereIn('disposition', ['scrap', 'replace'])
            ->where('ours', false)
            ->get();
        $lost = [];
        foreach ($findings as $finding) {
            $part = $list[$finding->part] ?? null;
            // What is renewed as a rule and was sound is no loss of this core; a part listed twice is lost once.
            $asRule = isset($part['always']) && $finding->condition === $part['conditions'][0];
            if ($part !== null && ! $asRule && in_array($part['part'], $hard, true)) {
                $lost[$part['part']] = true;
            }
        }

        return array_map(strval(...), array_keys($lost));
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
