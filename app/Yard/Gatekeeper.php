<?php

namespace App\Yard;

use App\Kernel\Refusal;
use App\Yard\Contracts\Blocker;
use App\Yard\Models\Hold;
use App\Yard\Models\Unit;
use Illuminate\Database\Eloquent\Model;

/** Says in a sentence why a unit may not be worked on here and now, or may not go through a gate. */
final class Gatekeeper
{
    public static function at(Unit $unit, StationName ...$stations): void
    {
        if (! in_array($unit->station, $stations, true)) {
            $belongs = implode(' or ', array_map(fn (StationName $s) => $s->inWords(), $stations));
            throw new Refusal(
                "Unit $unit->core_tag is at {$unit->station->inWords()}, so this cannot be done now; it belongs to ".
                    "$belongs.",
                409,
            );
        }
    }

    public static function noHold(Unit $unit): void
    {
        $hold = $unit->holds()->whereNull('lifted_at')->first();
        if ($hold !== null) {
            throw new Refusal(self::heldBy($unit, $hold), 409);
        }
    }

    /** The station after this one on the route of the job. */
    public static function next(Unit $unit, StationName $after): StationName
    {
        $route = $unit->jobType->stations();
        $at = array_search($after, $route, true);

        return $at === false ? StationName::Closed : $route[$at + 1] ?? StationName::Closed;
    }

    /** @return list<Blocker> everything that bars the gate: holds first, then what each station has against it */
    public function blockers(Unit $unit, Gate $gate): array
    {
        $blockers = self::holds($unit, $gate);
        foreach (StationName::inHouse() as $name) {
            array_push($blockers, ...app($name->station())->blockers($unit, $gate));
        }

        return $blockers;
    }

    /** @return list<Blocker> */
    public static function holds(Unit $unit, Gate $gate): array
    {
        $bar = fn (Hold $h) => new Blocker($gate, "hold:$h->id", self::heldBy($unit, $h), "/units/$unit->core_tag");

        $open = $unit->relationLoaded('holds')
            ? $unit->holds->whereNull('lifted_at')
            : $unit->holds()->whereNull('lifted_at')->get();

        return array_values($open->map($bar)->all());
    }

    /** @throws Refusal with every blocker when the gate is barred */
    public function pass(Unit $unit, Gate $gate): void
    {
        $blockers = $this->blockers($unit, $gate);
        if ($blockers !== []) {
            throw new Refusal(
                $gate->inWords().': '.implode(' ', array_map(fn (Blocker $b) => $b->sentence, $blockers)),
                409,
                [],
                ['blockers' => $blockers],
            );
        }
    }

    /**
     * Optimistic lock: the row must still be the one the person saw. Locks it for the rest of the transaction.
     *
     * @param  array<string, mixed>  $yours  what the person wants to write
     */
    public static function unchanged(Model $row, int $version, string $what, array $yours): void
    {
        $current = $row->newQuery()->lockForUpdate()->whereKey($row->getKey())->firstOrFail();
        if ($current->getAttribute('version') !== $version) {
            $theirs = array_intersect_key($current->toArray(), $yours) + [
                'version' => $current->getAttribute('version'),
            ];
            throw Refusal::stale($what, $theirs, $yours);
        }
    }

    private static function heldBy(Unit $unit, Hold $hold): string
    {
        return "Unit $unit->core_tag is on hold: $hold->reason Only the {$hold->lift_role->value} or the manager can ".
            'lift it.';
    }
}
