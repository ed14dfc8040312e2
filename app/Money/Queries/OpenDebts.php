<?php

namespace App\Money\Queries;

use App\Money\Models\CoreDebt;
use App\Yard\Contracts\MoneyFigure;

/** Cores customers owe for exchange units. */
final class OpenDebts
{
    /** @return list<MoneyFigure> */
    public function money(): array
    {
        $open = CoreDebt::query()->whereNull('settled_at');
        $overdue = (clone $open)->where('due_on', '<', now()->format('Y-m-d'));

        return [
            new MoneyFigure(
                'Cores owed to us',
                (float) (clone $open)->sum('core_charge'),
                (clone $open)->count(),
                $overdue->count().' of them overdue',
                '/core-accounts',
            ),
        ];
    }
}
