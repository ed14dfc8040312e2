<?php

namespace App\Stations\Ordering\Actions;

use App\Catalog\Models\Option;
use App\Catalog\Models\Package;
use App\Catalog\Models\Vehicle;
use App\Kernel\Ledger\Ledger;
use App\Kernel\OrderedRows;
use App\Kernel\Refusal;
use App\Shop\Models\Customer;
use App\Shop\Models\Person;
use App\Stations\Ordering\Duty;
use App\Stations\Ordering\Queries\Specification;
use App\Yard\AskedOrder;
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
        $customer = self::customer($in['customer'] ?? null);
        $vehicle = self::vehicle($in['vehicle'] ?? null);
        $asked = AskedOrder::read($in);
        $spec = $this->resolve->of($unit->family, $asked, Duty::of($asked->duty, $vehicle), $unit->variant);
        $build = self::draft($unit, $in, $by);
        $build
            ->fill([
                'customer_id' => $customer === null ? $unit->customer_id : $customer->id,
                'vehicle_id' => $vehicle?->id,
                'package_id' => Package::query()
                    ->where('family_id', $unit->family_id)
                    ->where('code', $in['package'])
                    ->valueOrFail('id'),
                'duty' => $spec['package']['duty'],
                'asked_duty' => $asked->duty,
                'price' => $spec['price'],
                'hours' => $spec['hours'],
                'promised_on' => $in['promisedOn'] ?? null,
                'version' => $build->version + 1,
            ])
            ->save();
        self::writeOptions($build, $asked);
        $unit->update(['current_build_id' => $build->id, 'promised_on' => $in['promisedOn'] ?? $unit->promised_on]);
        $this->ledger->onUnit(
            $unit,
            'order.placed',
            $in + ['price' => $spec['price'], 'hours' => $spec['hours'], 'status' => $spec['status']],
        );

        return $build;
    }

    private static function customer(?string $code): ?Customer
    {
        return $code === null
            ? null
            : Customer::query()->where('code', $code)->first() ??
                throw Refusal::at('/customer', "There is no customer \"$code\".");
    }

    private static function vehicle(?string $code): ?Vehicle
    {
        return $code === null
            ? null
            : Vehicle::query()->where('code', $code)->first() ??
                throw Refusal::at('/vehicle', "There is no vehicle \"$code\".");
    }

    /**
     * The order that is still open, as the person saw it, or a new one.
     *
     * @param  array<string, mixed>  $in
     */
    private static function draft(Unit $unit, array $in, Person $by): Build
    {
        $draft = $unit->currentBuild;
        if ($draft?->state === 'draft') {
            Gatekeeper::unchanged($draft, (int) ($in['version'] ?? 0), 'this order', $in);

            return $draft;
        }

        return new Build([
            'unit_id' => $unit->id,
            'generation' => 1 + (int) Build::query()->where('unit_id', $unit->id)->max('generation'),
            'state' => 'draft',
            'created_by' => $by->id,
            'created_at' => now(),
            'version' => 0,
        ]);
    }

    private static function writeOptions(Build $build, AskedOrder $asked): void
    {
        $ids = Option::query()->where('family_id', $build->package->family_id)->pluck('id', 'code');
        OrderedRows::clear($build->orderOptions());
        foreach (['add' => $asked->add, 'drop' => array_diff($asked->drop, $asked->add)] as $wish => $codes) {
            OrderedRows::write(
                $build->orderOptions()->where('wish', $wish),
                array_map(
                    fn (string $code) => ['wish' => $wish, 'option_id' => $ids[$code]],
                    array_values(array_unique($codes)),
                ),
            );
        }
    }
}
