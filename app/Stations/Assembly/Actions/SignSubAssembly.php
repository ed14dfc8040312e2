<?php

namespace App\Stations\Assembly\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Stations\Assembly\Models\SignOff;
use App\Stations\Assembly\Queries\SubAssemblies;
use App\Work\Bench;
use App\Work\Queries\BenchWork;
use App\Yard\Contracts\DynoRecord;
use App\Yard\Gatekeeper;
use App\Yard\Models\Build;
use App\Yard\StationName;

/** Somebody signs for a sub-assembly when all of its work is done and proven. */
final class SignSubAssembly
{
    public function __construct(
        private readonly Ledger $ledger,
        private readonly SubAssemblies $subs,
        private readonly DynoRecord $dyno,
    ) {
    }

    public function sign(Build $build, string $name, Person $by): void
    {
        Gatekeeper::at($build->unit, StationName::Assembly);
        $subs = array_column($this->subs->of(BenchWork::of($build->unit, Bench::Assembly)), null, 'name');
        $sub = $subs[$name] ?? throw new Refusal("This unit has no sub-assembly \"$name\" to sign for.", 404);
        if ($sub['left'] !== []) {
            throw new Refusal("\"$name\" is not done: ".implode('; ', $sub['left']).'.', 409);
        }
        if ($sub['by'] !== null) {
            throw new Refusal("\"$name\" is signed for already: {$sub['by']}.", 409);
        }
        $of = ['build_id' => $build->id, 'what' => SubAssemblies::what($name), 'loop_no' => $this->dyno->loop($build)];
        SignOff::create($of + [
            'nth' => 1 + (int) SignOff::query()->where($of)->max('nth'),
            'signed_by' => $by->id,
            'signed_at' => now(),
        ]);
        $this->ledger->onUnit($build->unit, 'assembly.sub-signed', ['serial' => $build->serial, 'sub' => $name]);
    }
}
