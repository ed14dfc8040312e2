<?php

namespace App\Stations\Returns\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\OrderedRows;
use App\Kernel\Refusal;
use App\Kernel\TypedQuantity;
use App\Shop\Models\Person;
use App\Stations\Returns\Models\UnitReturn;
use App\Yard\Contracts\FieldRecord;
use App\Yard\Gatekeeper;
use App\Yard\Models\Build;
use App\Yard\NumberSequence;
use App\Yard\StationName;

/** A unit comes back under its serial and gets a return number. */
final class OpenReturn
{
    public function __construct(private readonly Ledger $ledger, private readonly FieldRecord $field)
    {
    }

    /** @param  array<string, mixed>  $in */
    public function open(string $serial, array $in, Person $by): UnitReturn
    {
        $build =
            Build::query()->where('serial', $serial)->first() ??
            throw Refusal::at('/serial', "There is no unit with the serial $serial.");
        $unit = $build->unit()->lockForUpdate()->firstOrFail();
        if ($unit->current_build_id !== $build->id) {
            throw Refusal::at('/serial', "$serial was rebuilt since; it now carries {$unit->currentBuild?->serial}.");
        }
        Gatekeeper::at($unit, StationName::Field);
        if (isset($in['installedOn']) && $in['failedOn'] < $in['installedOn']) {
            throw Refusal::at('/failedOn', 'It cannot have failed before it was installed.');
        }
        $first = ! UnitReturn::query()->where('build_id', $build->id)->exists();
        $number = 'R-'.str_pad((string) NumberSequence::next('return'), 4, '0', STR_PAD_LEFT);
        $return = UnitReturn::create([
            'number' => $number,
            'build_id' => $build->id,
            'unit_id' => $unit->id,
            'complaint' => $in['complaint'],
            'installed_on' => $in['installedOn'] ?? null,
            'failed_on' => $in['failedOn'],
            'odometer_km' => ($in['odometer'] ?? '') === ''
                    ? null
                    : (int) round(TypedQuantity::parse($in['odometer'], 'length', 'km', '/odometer')->si / 1000),
            'opened_by' => $by->id,
            'opened_at' => now(),
            'version' => 1,
        ]);
        OrderedRows::write(
            $return->troubleCodes(),
            array_map(fn (string $code) => ['unit_id' => $unit->id, 'code' => $code], $in['codes'] ?? []),
        );
        $build->update(['state' => 'returned']);
        if ($first) {
            $this->field->cameBack($build);
        }
        $this->ledger->onUnit($unit, 'return.opened', $in + ['number' => $number, 'serial' => $serial]);
        $unit->update(['symptoms' => (object) []]);
        $unit->moveTo(StationName::Returns);

        return $return;
    }
}
