<?php

namespace App\Yard\Queries;

use App\Shop\HouseRules;
use App\Shop\RuleDefinition;
use App\Yard\Models\Build;
use App\Yard\Models\Unit;
use App\Yard\StationName;

/** What a change of a house rule would meet today: work that is still ahead of it, and work that is already frozen. */
final class RuleReach
{
    private const IN_WORK = ['released', 'passed'];

    public function __construct(private readonly HouseRules $rules)
    {
    }

    /**
     * @return array{unitsAhead: int, ordersOpen: int, buildsFrozen: int, thin: array{limit: float, builds: int,
     *     serial: string|null, margin: float|null}|null} thin: builds in work with a margin below the limit in force;
     *     null for every other rule
     */
    public function of(RuleDefinition $rule): array
    {
        return [
            'unitsAhead' => $this->unitsAhead(StationName::tryFrom($rule->station)),
            'ordersOpen' => Build::query()->where('state', 'draft')->count(),
            'buildsFrozen' => Build::query()->whereIn('state', self::IN_WORK)->count(),
            'thin' => $rule->code === 'margin-limit' ? $this->thin($this->rules->number($rule->code)) : null,
        ];
    }

    /** Units in the house that have not left the station yet; a side room has every unit ahead of it. */
    private function unitsAhead(?StationName $station): int
    {
        $working = StationName::working();
        $at = $station === null ? false : array_search($station, $working, true);

        return Unit::query()
            ->whereIn('station', $at === false ? $working : array_slice($working, 0, $at + 1))
            ->count();
    }

    /** @return array{limit: float, builds: int, serial: string|null, margin: float|null} */
    private function thin(float $limit): array
    {
        $at = fn (string $path): string => "JSON_VALUE(spec, '$.$path')";
        // Builds frozen before papers were shared have their margins in the row.
        $margin = "CAST(COALESCE({$at('weakestMargin')}, {$at('margins.weakest.margin')}) AS DOUBLE)";
        $inWork = fn () => Build::query()->whereIn('state', self::IN_WORK)->whereRaw("$margin IS NOT NULL");
        $thinnest = $inWork()->selectRaw("serial, $margin AS margin")->orderByRaw($margin)->toBase()->first();

        return [
            'limit' => $limit,
            'builds' => $inWork()->whereRaw("$margin < ?", [$limit])->count(),
            'serial' => $thinnest->serial ?? null,
            'margin' => $thinnest === null ? null : (float) $thinnest->margin,
        ];
    }
}
