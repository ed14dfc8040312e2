<?php

namespace App\Yard\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Shop\Role;
use App\Yard\Models\Hold;

final class LiftHold
{
    public function __construct(private readonly Ledger $ledger)
    {
    }

    public function lift(Hold $hold, string $reason, Person $by): void
    {
        if ($hold->lifted_at !== null) {
            throw new Refusal('This hold is already lifted.', 409);
        }
        if ($by->role !== $hold->lift_role && $by->role !== Role::Manager) {
            throw new Refusal("Only the {$hold->lift_role->value} or the manager can lift this hold.", 403);
        }
        $hold->update(['lifted_by' => $by->id, 'lifted_at' => now(), 'lift_reason' => $reason]);
        $this->ledger->onUnit($hold->unit()->firstOrFail(), 'hold.lifted', [
            'kind' => $hold->kind,
            'reason' => $reason,
        ]);
    }
}
