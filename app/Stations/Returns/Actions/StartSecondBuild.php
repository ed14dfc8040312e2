<?php

namespace App\Stations\Returns\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Stations\Returns\Models\UnitReturn;
use App\Yard\Gatekeeper;
use App\Yard\Models\Build;
use App\Yard\StationName;

/** The returned unit is built again: a new generation, linked to the one that came back. */
final class StartSecondBuild
{
    public function __construct(private readonly Ledger $ledger)
    {
    }

    public function start(UnitReturn $return, Person $by): Build
    {
        $unit = $return->unit()->firstOrFail();
        Gatekeeper::at($unit, StationName::Returns);
        if ($return->verdict === null) {
            throw new Refusal(
                'Give the verdict first: a second build without a cause would only repeat the first.',
                409,
            );
        }
        if ($return->second_build_id !== null) {
            throw new Refusal('The second build is already opened.', 409);
        }
        $first = $return->build;
        $build = Build::create([
            'unit_id' => $unit->id,
            'generation' => $first->generation + 1,
            'parent_build_id' => $first->id,
            'customer_id' => $first->customer_id,
            'vehicle_id' => $first->vehicle_id,
            'package_id' => $first->package_id,
            'duty' => $first->duty,
            'asked_duty' => $first->asked_duty,
            'price' => $first->price,
            'hours' => $first->hours,
            'state' => 'draft',
            'created_by' => $by->id,
            'created_at' => now(),
            'version' => 1,
        ]);
        foreach ($first->orderOptions as $asked) {
            $build->orderOptions()->create($asked->only(['wish', 'position', 'option_id']));
        }
        $return->update(['second_build_id' => $build->id]);
        $unit->update(['current_build_id' => $build->id]);
        $this->ledger->onUnit($unit, 'build.second', [
            'number' => $return->number,
            'generation' => $build->generation,
            'parent' => $first->serial,
        ]);
        $unit->moveTo(StationName::Ordering);

        return $build;
    }
}
