<?php

namespace App\Yard\Actions;

use App\Kernel\Ledger\Ledger;
use App\Shop\Models\Person;
use App\Shop\Role;
use App\Yard\Models\Hold;
use App\Yard\Models\Unit;

final class PlaceHold
{
    public function __construct(private readonly Ledger $ledger)
    {
    }

    public function place(Unit $unit, string $kind, string $reason, Person $by, Role $liftRole = Role::Manager): Hold
    {
        $hold = Hold::create([
            'unit_id' => $unit->id,
            'kind' => $kind,
            'reason' => $reason,
            'lift_role' => $liftRole,
            'placed_by' => $by->id,
            'placed_at' => now(),
        ]);
        $this->ledger->onUnit($unit, 'hold.placed', [
            'kind' => $kind,
            'reason' => $reason,
            'liftRole' => $liftRole->value,
        ]);

        return $hold;
    }
}
