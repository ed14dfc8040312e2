<?php

namespace App\Stations\Dispatch\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Money\Actions\OweCore;
use App\Shop\Models\Customer;
use App\Shop\Models\Person;
use App\Stations\Dispatch\Models\Shipment;
use App\Stations\Dispatch\Queries\DeliverySheet;
use App\Yard\Contracts\FieldRecord;
use App\Yard\Gate;
use App\Yard\Gatekeeper;
use App\Yard\Models\Build;
use App\Yard\StationName;

/**
 * The ship gate: no hold, tested (or marked untested by the job type), everything on the bench done, papers complete
 * and frozen.
 */
final class ShipUnit
{
    public function __construct(
        private readonly Ledger $ledger,
        private readonly DeliverySheet $sheet,
        private readonly Gatekeeper $gate,
        private readonly OweCore $owe,
        private readonly FieldRecord $field,
    ) {
    }

    public function ship(Build $build, ?string $customerCode, string $carrier, Person $by): Shipment
    {
        $unit = $build->unit;
        Gatekeeper::at($unit, StationName::Dispatch);
        $this->gate->pass($unit, Gate::Ship);
        $customer =
            $customerCode === null ? $build->customer : Customer::query()->where('code', $customerCode)->first();
        if ($customer === null) {
            throw Refusal::at('/customer', 'Say who gets the unit.');
        }
        if ($unit->ownership === 'customer' && $customer->id !== $unit->customer_id) {
            throw Refusal::at(
                '/customer',
                "This is the customer's own unit: it goes back to the customer it came from.",
            );
        }
        $sheet = $this->sheet->of($build) + ['customer' => $customer->name, 'shippedOn' => now()->format('Y-m-d')];
        $shipment = Shipment::create([
            'build_id' => $build->id,
            'customer_id' => $customer->id,
            'carrier' => $carrier,
            'sheet' => $sheet,
            'warranty_until' => now()->addDays($unit->jobType->warranty_days)->format('Y-m-d'),
            'warranty_km' => $unit->jobType->warranty_km,
            'shipped_by' => $by->id,
            'shipped_at' => now(),
        ]);
        $build->update(['state' => 'shipped']);
        $this->field->shipped($build);
        $this->ledger->onUnit($unit, 'unit.shipped', [
            'serial' => $build->serial,
            'customer' => $customer->code,
            'carrier' => $carrier,
            'sheetSha256' => hash('sha256', json_encode($sheet, JSON_THROW_ON_ERROR)),
        ]);
        if ($unit->ownership === 'exchange' && $build->generation === 1) {
            $this->owe->charge($build, $unit, $customer); // a warranty replacement has its core already
        }
        $unit->update(['promised_on' => null]); // kept
        $unit->moveTo(StationName::Field);

        return $shipment;
    }
}
