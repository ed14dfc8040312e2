<?php

namespace App\Yard\Contracts;

/** A room that has something for the manager's first page. */
interface ManagersDay
{
    /** @return list<Decision> oldest first, fifty at most */
    public function decisions(): array;

    /** @return list<MoneyFigure> */
    public function moneyAtRisk(): array;
}
