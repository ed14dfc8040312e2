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
        $open = CoreDebt::query()
            ->whereNull('settled_at')
            ->toBase()
            ->selectRaw(
                'COUNT(*) AS n, COALESCE(SUM(core_charge), 0) AS charged, COALESCE(SUM(due_on < ?), 0) AS overdue',
                [now()->format('Y-m-d')],
            )
            ->sole();

        return [
            new MoneyFigure(
                'Cores owed to us',
                (float) $open->charged,
                (int) $open->n,
                "$open->overdue of them overdue",
                '/core-accounts',
            ),
        ];
    }
}
