<?php

namespace App\Stations\Assembly\Actions;

use App\Kernel\Ledger\Ledger;
use App\Shop\Models\Person;
use App\Stations\Assembly\Models\SignOff;
use App\Yard\Contracts\DynoRecord;
use App\Yard\Gate;
use App\Yard\Gatekeeper;
use App\Yard\Models\Build;
use App\Yard\StationName;

/** The builder signs for the assembly; refused with every reason while something is missing or outside its window. */
final class SignOffBuild
{
    public function __construct(
        private readonly Ledger $ledger,
        private readonly Gatekeeper $gate,
        private readonly DynoRecord $dyno,
    ) {
    }

    public function sign(Build $build, Person $by): void
    {
        $unit = $build->unit;
        Gatekeeper::at($unit, StationName::Assembly);
        $this->gate->pass($unit, Gate::SignOff);
        $loop = $this->dyno->loop($build);
        SignOff::create([
            'build_id' => $build->id,
            'what' => 'assembly',
            'loop_no' => $loop,
            'signed_by' => $by->id,
            'signed_at' => now(),
        ]);
        $this->ledger->onUnit($unit, 'assembly.signed', ['serial' => $build->serial, 'loop' => $loop]);
        $unit->moveTo(Gatekeeper::next($unit, StationName::Assembly));
    }
}
