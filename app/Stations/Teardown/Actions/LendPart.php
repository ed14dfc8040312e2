<?php

namespace App\Stations\Teardown\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Stations\Teardown\Models\LoanPart;
use App\Yard\Gatekeeper;
use App\Yard\Models\Unit;
use App\Yard\StationName;

/** A donor's part goes aboard for a test or the transport, and must be out again before the unit ships. */
final class LendPart
{
    public function __construct(private readonly Ledger $ledger)
    {
    }

    /** @param  array<string, mixed>  $lent  name, origin, reason */
    public function fit(Unit $unit, array $lent, Person $by): LoanPart
    {
        Gatekeeper::at($unit, ...StationName::inHouse());
        $part = LoanPart::create($lent + ['unit_id' => $unit->id, 'fitted_by' => $by->id, 'fitted_at' => now()]);
        $this->ledger->onUnit($unit, 'loan.fitted', $lent);

        return $part;
    }

    public function takeOut(Unit $unit, int $id, Person $by): void
    {
        $part =
            LoanPart::query()->where('unit_id', $unit->id)->whereKey($id)->first() ??
            throw new Refusal('There is no such part aboard this unit.', 404);
        if ($part->out_at !== null) {
            throw new Refusal("\"$part->name\" is out already.", 409);
        }
        $part->update(['out_by' => $by->id, 'out_at' => now()]);
        $this->ledger->onUnit($unit, 'loan.out', ['name' => $part->name]);
    }
}
