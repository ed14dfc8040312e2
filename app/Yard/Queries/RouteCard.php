<?php

namespace App\Yard\Queries;

use App\Shop\Queries\PeopleNames;
use App\Yard\Contracts\Section;
use App\Yard\Models\Hold;
use App\Yard\Models\Unit;

/** The unit's route card: one long card that grows a section at each station. */
final class RouteCard
{
    /** @param  array<string, Section>  $sections  by station */
    public function __construct(private readonly array $sections, private readonly PeopleNames $names)
    {
    }

    /**
     * @param  list<string>  $sections  keys of the sections wanted
     * @return array<string, mixed> header, holds, which sections there are, and those wanted
     */
    public function of(Unit $unit, array $sections): array
    {
        $unit = Unit::query()->named()->with('holds')->findOrFail($unit->id);
        $card = UnitSummary::of($unit) + [
            'holds' => $unit->holds
                ->map(
                    fn (Hold $h) => [
                        'id' => $h->id,
                        'kind' => $h->kind,
                        'reason' => $h->reason,
                        'liftRole' => $h->lift_role,
                        'placedBy' => $this->names->of($h->placed_by),
                        'placedAt' => $h->placed_at->toIso8601ZuluString(),
                        'liftedBy' => $this->names->of($h->lifted_by),
                        'liftedAt' => $h->lifted_at?->toIso8601ZuluString(),
                        'liftReason' => $h->lift_reason,
                    ],
                )
                ->all(),
        ];
        foreach ($this->sections as $key => $section) {
            $card['sections'][$key] = $section->has($unit);
            if (in_array($key, $sections, true)) {
                $card[$key] = $section->has($unit) ? $section->of($unit) : null;
            }
        }

        return $card;
    }
}
