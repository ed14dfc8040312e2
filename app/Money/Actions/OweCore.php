<?php

namespace App\Money\Actions;

use App\Kernel\Ledger\Ledger;
use App\Money\Models\CoreDebt;
use App\Shop\HouseRules;
use App\Shop\Models\Customer;
use App\Yard\Models\Build;
use App\Yard\Models\Unit;

/**
 * An exchange unit leaves the house: its customer owes a core of the family; a core that comes in settles the oldest
 * debt.
 */
final class OweCore
{
    public function __construct(private readonly Ledger $ledger, private readonly HouseRules $rules)
    {
    }

    public function charge(Build $build, Unit $unit, Customer $customer): void
    {
        $days = (int) $this->rules->number('core-return-days');
        $charge = (float) ($unit->variant->core_charge ?? 0);
        CoreDebt::create([
            'customer_id' => $customer->id,
            'build_id' => $build->id,
            'family_id' => $unit->family_id,
            'core_charge' => $charge,
            'charged_on' => now()->format('Y-m-d'),
            'due_on' => now()->addDays($days)->format('Y-m-d'),
        ]);
        $this->ledger->onUnit($unit, 'core.charged', [
            'customer' => $customer->code,
            'charge' => $charge,
            'days' => $days,
        ]);
    }

    /** A refused core settles nothing; a core settles at most one debt. */
    public function settle(Unit $unit): void
    {
        if (
            $unit->customer_id === null ||
            $unit->family_id === null ||
            $unit->ownership !== 'exchange' ||
            $unit->grade === 'X' ||
            CoreDebt::query()->where('settled_by_unit_id', $unit->id)->exists()
        ) {
            return;
        }
        $debt = CoreDebt::query()
            ->where('customer_id', $unit->customer_id)
            ->where('family_id', $unit->family_id)
            ->whereNull('settled_at')
            ->orderBy('charged_on')
            ->orderBy('id')
            ->lockForUpdate()
            ->first();
        if ($debt !== null) {
            $debt->update(['settled_by_unit_id' => $unit->id, 'settled_at' => now()]);
            $this->ledger->onUnit($unit, 'core.settles', [
                'debt' => $debt->id,
                'charge' => (float) $debt->core_charge,
            ]);
        }
    }
}
