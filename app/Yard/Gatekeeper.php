<?php

namespace App\Yard;

use App\Kernel\Refusal;
use App\Yard\Models\Unit;
use Illuminate\Database\Eloquent\Model;

/** Says in one sentence why a unit may not be worked on here and now. */
final class Gatekeeper
{
    public const STATION_NAMES = [
        'identify' => 'identification',
        'desk' => 'the order desk',
        'teardown' => 'teardown',
        'bench' => 'the assembly bench',
        'cell' => 'the test cell',
        'dispatch' => 'dispatch',
        'field' => 'the customer',
        'returns' => 'returns',
        'closed' => 'the end of its route',
    ];

    public static function at(Unit $unit, string ...$stations): void
    {
        if (! in_array($unit->station, $stations, true)) {
            throw new Refusal(
                'Unit '.
                    $unit->core_tag.
                    ' is at '.
                    self::STATION_NAMES[$unit->station].
                    ', so this cannot be done now; it belongs to '.
                    implode(' or ', array_map(fn ($s) => self::STATION_NAMES[$s], $stations)).
                    '.',
                409,
            );
        }
    }

    public static function noHold(Unit $unit): void
    {
        $hold = $unit->holds()->whereNull('lifted_at')->first();
        if ($hold !== null) {
            throw new Refusal(
                "Unit $unit->core_tag is on hold: $hold->reason Only the $hold->lift_role can lift it.",
                409,
            );
        }
    }

    /** The station after this one on the route of the job. */
    public static function next(Unit $unit, string $after): string
    {
        $route = $unit->jobType->route;
        $at = array_search($after, $route, true);

        return $at === false ? 'closed' : $route[$at + 1] ?? 'closed';
    }

    /**
     * Optimistic lock: the row must still be the one the person saw. Locks it for the rest of the transaction.
     *
     * @param  array<string, mixed>  $yours  what the person wants to write
     */
    public static function unchanged(Model $row, int $version, string $what, array $yours): void
    {
        $current = $row->newQuery()->lockForUpdate()->findOrFail($row->getKey());
        if ($current->version !== $version) {
            throw Refusal::stale(
                $what,
                array_intersect_key($current->toArray(), $yours) + ['version' => $current->version],
                $yours,
            );
        }
    }
}
