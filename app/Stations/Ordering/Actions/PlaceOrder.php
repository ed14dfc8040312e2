<?php

namespace App\Stations\Ordering\Actions;

use App\Catalog\Models\Package;
use App\Catalog\Models\Vehicle;
use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Shop\Models\Customer;
use App\Shop\Models\Person;
use App\Stations\Ordering\Duty;
use App\Stations\Ordering\Queries\Specification;
use App\Yard\Gatekeeper;
use App\Yard\Models\Build;
use App\Yard\Models\Unit;
use App\Yard\StationName;

/** Writes or changes the order for a unit while it is still a draft. */
final class PlaceOrder
{
    public function __construct(private readonly Ledger $ledger, private readonly Specification $resolve)
    {
    }

    /** @param  array<string, mixed>  $in */
    public function place(Unit $unit, array $in, Person $by): Build
    {
        Gatekeeper::at($unit, StationName::Ordering);
        if ($unit->variant === null || $unit->family === null) {
            throw new Refusal(
                'The variant is not confirmed yet: a build cannot be ordered for an unidentified core.',
                409,
            );
        }
        $customer = isset($in['customer'])
            ? Customer::query()->where('code', $in['customer'])->first() ??
                throw Refusal::at('/customer', "There is no customer \"{$in['customer']}\".")
            : null;
        $vehicle = isset($in['vehicle'])
            ? Vehicle::query()->where('code', $in['vehicle'])->first() ??
                throw Refusal::at('/vehicle', "There is no vehicle \"{$in['vehicle']}\".")
            : null;
        $spec = $this->resolve->of(
            $unit->family,
            $in['package'],
            $in['add'] ?? [],
            $in['drop'] ?? [],
            Duty::of($in['duty'] ?? null, $vehicle),
            $unit->variant,
        );
        $draft = $unit->currentBuild?->state === 'draft' ? $unit->currentBuild : null;
        if ($draft !== null) {
            Gatekeeper::unchanged($draft, (int) ($in['version'] ?? 0), 'this order', ['order_lines' => $in]);
        }
        $build =
            $draft ??
            new Build([
                'unit_id' => $unit->id,
                'generation' => 1 + (int) Build::query()->where('unit_id', $unit->id)->max('generation'),
                'state' => 'draft',
                'created_by' => $by->id,
                'created_at' => now(),
                'version' => 0,
            ]);
        $build
            ->fill([
                'customer_id' => $customer === null ? $unit->customer_id : $customer->id,
                'vehicle_id' => $vehicle?->id,
                'package_id' => Package::query()
                    ->where('family_id', $unit->family_id)
                    ->where('code', $in['package'])
                    ->valueOrFail('id'),
                'duty' => $spec['package']['duty'],
                'order_lines' => [
                    'package' => $in['package'],
                    'add' => $in['add'] ?? [],
                    'drop' => $in['drop'] ?? [],
                    'duty' => $in['duty'] ?? null,
                ],
                'price' => $spec['price'],
                'hours' => $spec['hours'],
                'promised_on' => $in['promisedOn'] ?? null,
                'version' => $build->version + 1,
            ])
            ->save();
        $unit->update(['current_build_id' => $build->id, 'promised_on' => $in['promisedOn'] ?? $unit->promised_on]);
        $this->ledger->onUnit(
            $unit,
            'order.placed',
            $in + ['price' => $spec['price'], 'hours' => $spec['hours'], 'status' => $spec['status']],
        );

        return $build;
    }
}
