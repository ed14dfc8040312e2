<?php

namespace App\Yard\Queries;

use App\Shop\Queries\PeopleNames;
use App\Yard\Contracts\Section;
use App\Yard\Models\Hold;
use App\Yard\Models\Unit;
use Illuminate\Database\Eloquent\Builder;

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
        $whole = self::whole()->findOrFail($unit->id);
        // Of a unit that came a moment ago it is known what it does not have.
        $whole->setRelations($whole->getRelations() + ($unit->wasRecentlyCreated ? $unit->nothingOf() : []));

        return $this->shown($whole, $sections);
    }

    /**
     * @param  list<string>  $sections
     * @return array<string, mixed> the same of the unit with this number
     */
    public function numbered(string $number, array $sections): array
    {
        return $this->shown(Unit::numbered(self::whole(), $number), $sections);
    }

    /** @return Builder<Unit> */
    private static function whole(): Builder
    {
        return Unit::query()->named()->with('holds');
    }

    /**
     * @param  list<string>  $sections
     * @return array<string, mixed>
     */
    private function shown(Unit $unit, array $sections): array
    {
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
