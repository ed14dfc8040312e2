<?php

namespace App\Track;

use App\Ledger\Ledger;
use App\Shop\Person;
use App\Shop\Refused;

final class LiftHold
{
    public function __construct(private readonly Ledger $ledger)
    {
    }

    public function lift(Hold $hold, string $reason, Person $by): void
    {
        if ($hold->lifted_at !== null) {
            throw new Refused('This hold is already lifted.', 409);
        }
        if ($by->role !== $hold->lift_role && $by->role !== 'manager') {
            throw new Refused("Only the $hold->lift_role can lift this hold.", 403);
        }
        $hold->update(['lifted_by' => $by->id, 'lifted_at' => now(), 'lift_reason' => $reason]);
        $this->ledger->onUnit($hold->unit()->firstOrFail(), 'hold.lifted', ['kind' => $hold->kind, 'reason' => $reason]);
    }
}
