<?php

namespace App\Stations\Teardown\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Kernel\TypedQuantity;
use App\Shop\Models\Person;
use App\Yard\Gatekeeper;
use App\Yard\Models\Unit;
use App\Yard\StationName;

/** What began when in the life of a unit, told by the customer or read from papers; what was told wrongly is struck. */
final class TellTimeline
{
    private const MOST = 60;

    private const MOST_KM = 5_000_000;

    public function __construct(private readonly Ledger $ledger)
    {
    }

    public function tell(Unit $unit, string $at, string $kind, string $said, Person $by): void
    {
        self::open($unit);
        $typed = TypedQuantity::parse($at, 'length', 'km', '/at');
        $km = (int) round($typed->in('km'));
        $km >= 0 && $km <= self::MOST_KM || throw Refusal::at('/at', 'No vehicle has that distance.');
        $known = $unit->odometer_km;
        $known === null || $km <= $known ||
            throw Refusal::at('/at', "That is after it came in, at $known km.");
        count($unit->timeline) < self::MOST || throw new Refusal('More than '.self::MOST.' entries are no story.', 409);
        $entry = ['km' => $km, 'typed' => trim($at), 'kind' => $kind, 'said' => trim($said), 'by' => $by->name];
        $unit->update(['timeline' => [...$unit->timeline, $entry]]);
        $this->ledger->onUnit($unit, 'timeline.told', array_diff_key($entry, ['by' => 0]));
    }

    /** @param  array{km: int, kind: string, said: string}  $entry  as it was shown */
    public function strike(Unit $unit, array $entry): void
    {
        self::open($unit);
        $shown = ['km' => $entry['km'], 'kind' => $entry['kind'], 'said' => $entry['said']];
        $left = $unit->timeline;
        foreach ($left as $n => $told) {
            if (array_intersect_key($told, $shown) == $shown) {
                unset($left[$n]);
                $unit->update(['timeline' => array_values($left)]);
                $this->ledger->onUnit($unit, 'timeline.struck', $shown);

                return;
            }
        }
        throw new Refusal('That is no longer told of this unit: look again.', 409);
    }

    private static function open(Unit $unit): void
    {
        Gatekeeper::at(
            $unit,
            StationName::Identification,
            StationName::Ordering,
            StationName::Teardown,
            StationName::Assembly,
            StationName::Returns,
        );
    }
}
