<?php

namespace App\Stations\Dispatch\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Kernel\TypedQuantity;
use App\Shop\Models\Person;
use App\Stations\Dispatch\Models\Commissioning;
use App\Yard\Contracts\WarrantyConditions;
use App\Yard\Gatekeeper;
use App\Yard\Models\Build;
use App\Yard\Models\Unit;
use App\Yard\StationName;
use Yard\Core\Fit\ConverterSeat;

/** What the installer did: the warranty starts when it is on file. */
final class RecordCommissioning
{
    public function __construct(private readonly Ledger $ledger, private readonly WarrantyConditions $conditions)
    {
    }

    /** @param  array<string, mixed>  $in */
    public function record(Build $build, array $in, Person $by): Commissioning
    {
        $unit = $build->unit;
        Gatekeeper::at($unit, StationName::Field, StationName::Returns);
        $c = $build->frozen()['converter'];
        $depth = ConverterSeat::of(
            $c['unit'],
            TypedQuantity::parse($in['converterDepth'], 'length', $c['unit'], '/converterDepth')->in($c['unit']),
            TypedQuantity::parse($in['flexplateDepth'], 'length', $c['unit'], '/flexplateDepth')->in($c['unit']),
            (float) $c['minPull'],
            (float) $c['maxPull'],
        );
        if (Commissioning::query()->where('build_id', $build->id)->exists()) {
            throw new Refusal('The commissioning of this unit is already on file.', 409);
        }
        $this->assertSettled($unit);
        $commissioning = Commissioning::create([
            'build_id' => $build->id,
            'installed_on' => $in['installedOn'],
            'odometer_km' => (int) round(
                TypedQuantity::parse($in['odometer'], 'length', 'km', '/odometer')->si / 1000,
            ),
            'items' => $in['items'],
            'depth' => get_object_vars($depth) + [
                'converterDepth' => $in['converterDepth'],
                'flexplateDepth' => $in['flexplateDepth'],
            ],
            'installer' => $in['installer'],
            'recorded_by' => $by->id,
            'recorded_at' => now(),
        ]);
        $this->ledger->onUnit(
            $unit,
            'unit.commissioned',
            $in + ['pull' => $depth->pull, 'seated' => $depth->seated],
        );

        return $commissioning;
    }

    /** @throws Refusal while something in the vehicle that killed the unit before is as it was */
    private function assertSettled(Unit $unit): void
    {
        foreach ($this->conditions->of($unit) as $condition) {
            if ($condition['settled'] === null) {
                throw new Refusal(
                    "The warranty does not start yet. {$condition['name']}: {$condition['condition']} Write down who "
                        .'did it and how, in the teardown of this unit.',
                    409,
                );
            }
        }
    }
}
