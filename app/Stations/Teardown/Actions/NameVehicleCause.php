<?php

namespace App\Stations\Teardown\Actions;

use App\Catalog\Models\Vocabulary;
use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Stations\Teardown\Models\VehicleCause;
use App\Work\Generation;
use App\Yard\Models\Unit;

/** What killed the unit lies in the vehicle: named at teardown, settled before the warranty starts. */
final class NameVehicleCause
{
    public function __construct(private readonly Ledger $ledger)
    {
    }

    public function name(Unit $unit, string $cause, string $note, Person $by): VehicleCause
    {
        $known = array_column(self::known(), null, 'code')[$cause] ??
            throw Refusal::at('/cause', "There is no cause called \"$cause\".");
        $row = ['unit_id' => $unit->id, 'generation' => Generation::of($unit, 'teardown'), 'cause' => $cause];
        if (VehicleCause::query()->where($row)->exists()) {
            throw new Refusal('This cause is named already.', 409);
        }
        $named = VehicleCause::create($row + [
            'name' => $known->name,
            'letter' => $known->letter,
            'condition' => $known->condition,
            'note' => $note,
            'named_by' => $by->id,
            'named_at' => now(),
        ]);
        $this->ledger->onUnit($unit, 'vehicle-cause.named', ['cause' => $cause, 'note' => $note]);

        return $named;
    }

    public function settle(Unit $unit, int $id, string $who, string $how, Person $by): void
    {
        $cause =
            VehicleCause::query()->where('unit_id', $unit->id)->whereKey($id)->first() ??
            throw new Refusal('There is no such cause on this unit.', 404);
        if ($cause->settled_at !== null) {
            throw new Refusal("It is settled already, by $cause->settled_by_name.", 409);
        }
        $cause->update([
            'settled_by_name' => $who,
            'settled_how' => $how,
            'settled_by' => $by->id,
            'settled_at' => now(),
        ]);
        $said = ['cause' => $cause->cause, 'by' => $who, 'how' => $how];
        $this->ledger->onUnit($unit, 'vehicle-cause.settled', $said);
    }

    /** @return list<\stdClass> */
    public static function known(): array
    {
        return Vocabulary::query()->where('code', 'vehicle-causes')->first()->body->causes ?? [];
    }
}
