<?php

namespace App\Stations\Teardown\Queries;

use App\Catalog\Models\Vocabulary;
use App\Shop\HouseRules;
use App\Stations\Teardown\Models\Finding;
use App\Work\Contracts\Circumstances;
use App\Work\Generation;
use App\Yard\Contracts\DynoRecord;
use App\Yard\Models\Unit;
use App\Yard\StationName;

/** What clues and findings say of a whole unit: the vocabulary `circumstances` of the pack. */
final class UnitCircumstances implements Circumstances
{
    public function __construct(private readonly HouseRules $rules, private readonly DynoRecord $dyno)
    {
    }

    public function of(Unit $unit): array
    {
        $known = Vocabulary::query()->where('code', 'circumstances')->first()->body->items ?? [];
        $found = Finding::query()
            ->where('unit_id', $unit->id)
            ->where('generation', Generation::of($unit, 'teardown'))
            ->pluck('condition', 'part')
            ->all();
        $here = array_filter(
            $known,
            fn (\stdClass $c): bool => self::says($c->clues ?? null, $unit->clues)
                || self::says($c->findings ?? null, $found)
                || (($c->longOnShelf ?? false) && $this->layLong($unit))
                || (($c->ranInCell ?? false) && $this->ranInCell($unit)),
        );

        return array_values(array_map(fn (\stdClass $c): string => $c->code, $here));
    }

    private function ranInCell(Unit $unit): bool
    {
        return $unit->currentBuild !== null && $this->dyno->passed($unit->currentBuild) !== null;
    }

    private function layLong(Unit $unit): bool
    {
        return $unit->station === StationName::Dispatch
            && $unit->station_since->diffInDays(now()) > $this->rules->number('turn-after-days');
    }

    /** @param  array<string, mixed>  $seen  what was seen by what it was seen on */
    private static function says(?\stdClass $telling, array $seen): bool
    {
        foreach ((array) $telling as $on => $values) {
            if (in_array($seen[$on] ?? null, $values, true)) {
                return true;
            }
        }

        return false;
    }
}
