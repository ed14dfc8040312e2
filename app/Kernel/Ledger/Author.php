<?php

namespace App\Kernel\Ledger;

/** Somebody whose badge stands beside what they did. */
interface Author
{
    public function badge(): string;
}
