<?php

namespace App\Stations\Teardown\Actions;

use App\Kernel\Ledger\Ledger;
use App\Stations\Teardown\Queries\LeakTrace;
use App\Yard\Models\Unit;

/** What is seen of a leak: before anything is washed, and after. */
final class TraceLeak
{
    public function __construct(private readonly Ledger $ledger, private readonly LeakTrace $trace)
    {
    }

    /** @param  array<string, string>  $observed  the whole of what is known; what is left out is taken back */
    public function see(Unit $unit, array $observed): void
    {
        $this->trace->assertKnown($unit, $observed);
        $unit->update(['leak' => (object) $observed]);
        $this->ledger->onUnit($unit, 'leak.traced', ['observed' => (object) $observed]);
    }
}
