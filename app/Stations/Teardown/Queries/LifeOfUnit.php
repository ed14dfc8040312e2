<?php

namespace App\Stations\Teardown\Queries;

use App\Shop\HouseRules;
use App\Yard\Models\Unit;
use Yard\Core\Faults\Timeline;

/** What is told of a unit's life, and what that and its plates say together. */
final class LifeOfUnit
{
    public function __construct(private readonly HouseRules $rules)
    {
    }

    /**
     * @param  list<array<string, mixed>>  $inspection  parts of the list with what was found on each
     * @return array{entries: list<array<string, mixed>>, says: list<string>} the earliest first
     */
    public function of(Unit $unit, array $inspection): array
    {
        $graded = array_filter($inspection, fn (array $p) => $p['kind'] === 'friction' && isset($p['finding']));
        $sound = array_filter($graded, fn (array $p) => $p['finding']['condition'] === $p['conditions'][0]);
        $entries = $unit->timeline;
        usort($entries, fn (array $a, array $b): int => $a['km'] <=> $b['km']);
        $says = new Timeline(
            array_map(
                fn (array $e): array => ['km' => (float) $e['km'], 'kind' => $e['kind'], 'said' => $e['said']],
                $entries,
            ),
            $unit->odometer_km === null ? null : (float) $unit->odometer_km,
            count($graded),
            count($sound),
            $this->rules->number('old-plates-km'),
            $this->rules->number('fluid-gap-km'),
        );

        return ['entries' => $entries, 'says' => $says->says()];
    }
}
