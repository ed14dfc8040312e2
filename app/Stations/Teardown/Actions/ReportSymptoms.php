<?php

namespace App\Stations\Teardown\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Yard\Gatekeeper;
use App\Yard\Models\Unit;
use App\Yard\StationName;
use Yard\Core\BadInput;
use Yard\Core\Faults\Symptoms;

/** Which gears worked, slipped or were gone: the other half of the diagnosis beside the findings. */
final class ReportSymptoms
{
    public function __construct(private readonly Ledger $ledger)
    {
    }

    /**
     * @param  array<string, string>  $observed gear or shift => ok, slips, missing, flare ...
     * @param  array<string, string>|null  $pressures circuit => low, normal, high at the case taps; null leaves them as
     *     they are
     */
    public function report(Unit $unit, array $observed, Person $by, ?array $pressures = null): void
    {
        Gatekeeper::at(
            $unit,
            StationName::Identification,
            StationName::Ordering,
            StationName::Teardown,
            StationName::Assembly,
            StationName::Returns,
        );
        if ($unit->family === null) {
            throw new Refusal('Set the family at receiving first: the gears are those of its chart.', 409);
        }
        try {
            new Symptoms($unit->family->chart(), $observed, $pressures ?? $unit->pressures);
        } catch (BadInput $e) {
            throw Refusal::at($e->path, $e->getMessage());
        }
        foreach (array_keys($pressures ?? []) as $circuit) {
            if (
                ! in_array((string) $circuit, ['line', ...array_column($unit->family->train['elements'], 'id')], true)
            ) {
                throw Refusal::at("/pressures/$circuit", "There is no circuit \"$circuit\" in this family.");
            }
        }
        $unit->update(
            ['symptoms' => (object) $observed] + ($pressures === null ? [] : ['pressures' => (object) $pressures]),
        );
        $this->ledger->onUnit(
            $unit,
            'symptoms.reported',
            ['observed' => (object) $observed] + ($pressures === null ? [] : ['pressures' => (object) $pressures]),
        );
    }
}
