<?php

namespace App\Track;

/** The unit's route card: one long card that grows a section at each station. */
final class RouteCard
{
    /** @param  list<CardSection>  $sections */
    public function __construct(private readonly array $sections)
    {
    }

    /** @return array<string, mixed> */
    public function of(Unit $unit): array
    {
        $unit->loadMissing(['family', 'variant', 'jobType', 'customer', 'currentBuild.package', 'holds.placer', 'holds.lifter']);
        $card = UnitSummary::of($unit) + ['holds' => $unit->holds->map(fn (Hold $h) => [
            'id' => $h->id, 'kind' => $h->kind, 'reason' => $h->reason, 'liftRole' => $h->lift_role, 'placedBy' => $h->placer->name, 'placedAt' => $h->placed_at->toIso8601ZuluString(),
            'liftedBy' => $h->lifter?->name, 'liftedAt' => $h->lifted_at?->toIso8601ZuluString(), 'liftReason' => $h->lift_reason,
        ])->all()];
        foreach ($this->sections as $section) {
            $card[$section->key()] = $section->of($unit);
        }

        return $card;
    }
}
