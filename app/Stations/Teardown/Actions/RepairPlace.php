<?php

namespace App\Stations\Teardown\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Stations\Teardown\Models\Repair;
use App\Stations\Teardown\Queries\Rescue;
use App\Work\Generation;
use App\Yard\Gatekeeper;
use App\Yard\Models\Unit;
use App\Yard\StationName;

/** A seized, stripped or broken fastener or shaft is got out, and that stays with the unit. */
final class RepairPlace
{
    public function __construct(private readonly Ledger $ledger, private readonly Rescue $rescue)
    {
    }

    public function repair(Unit $unit, string $place, string $trouble, string $method, string $note, Person $by): Repair
    {
        Gatekeeper::at($unit, StationName::Teardown, StationName::Assembly, StationName::Returns);
        $at = $this->rescue->places($unit)[$place] ??
            throw Refusal::at('/place', "There is no fastener or shaft \"$place\" in this family.");
        $how = $this->rescue->method($method) ?? throw Refusal::at('/method', "There is no way called \"$method\".");
        $why = $this->rescue->forbidden($unit, $how);
        if ($why !== null) {
            throw Refusal::at('/method', "$why Choose another way.");
        }
        if (! in_array($trouble, $how->for, true)) {
            throw Refusal::at('/method', "\"$how->name\" is no help where it is $trouble.");
        }
        $repair = Repair::create([
            'unit_id' => $unit->id,
            'generation' => Generation::of($unit, 'teardown'),
            'place' => $place,
            'place_name' => $at['name'],
            'trouble' => $trouble,
            'method' => $method,
            'method_name' => $how->name,
            'hours' => $how->hours,
            'check_after' => $how->after,
            'note' => $note,
            'done_by' => $by->id,
            'done_at' => now(),
        ]);
        $this->ledger->onUnit($unit, 'place.repaired', compact('place', 'trouble', 'method', 'note'));

        return $repair;
    }
}
