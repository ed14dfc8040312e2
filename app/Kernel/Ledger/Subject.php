<?php

namespace App\Kernel\Ledger;

/** Something with a stream of its own in the ledger. */
interface Subject
{
    public function ledgerStream(): string;

    /** The unit the events belong to. */
    public function ledgerUnit(): int;
}
