<?php

namespace App\Money;

use Yard\Core\Credit\CoreCredit;
use Yard\Core\Credit\CreditLine;
use Yard\Core\Credit\Grading;

/** Grade and credit of a core once its hard parts have been looked at. */
final readonly class RevisedCredit
{
    /** @param  list<string>  $lostParts  numbers of hard parts found ruined */
    public function __construct(public Grading $grading, public CoreCredit $credit, public array $lostParts)
    {
    }

    /** @return list<array<string, mixed>> */
    public function lines(): array
    {
        return array_map(fn (CreditLine $l) => $l->toArray(), $this->credit->lines);
    }
}
