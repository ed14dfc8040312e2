<?php

namespace App\Stations\Teardown\Queries;

use App\Shop\Queries\PeopleNames;
use App\Stations\Teardown\Actions\NameVehicleCause;
use App\Stations\Teardown\Models\ExtraWork;
use App\Stations\Teardown\Models\LoanPart;
use App\Stations\Teardown\Models\VehicleCause;
use App\Work\Generation;
use App\Yard\Models\Unit;

/** What follows from a teardown beyond the bench: questions to the customer, the vehicle, parts on loan. */
final class TeardownAccount
{
    public function __construct(private readonly PeopleNames $names)
    {
    }

    /** @return array<string, mixed> */
    public function of(Unit $unit): array
    {
        $row = ['unit_id' => $unit->id, 'generation' => Generation::of($unit, 'teardown')];

        return [
            'extraWork' => ExtraWork::query()->where($row)->orderBy('id')->get()->map($this->extra(...))->all(),
            'vehicleCauses' => VehicleCause::query()->where($row)->orderBy('id')->get()->map($this->cause(...))->all(),
            'knownCauses' => array_map(
                fn (\stdClass $c): array => ['code' => $c->code, 'name' => $c->name, 'condition' => $c->condition],
                NameVehicleCause::known(),
            ),
            'loans' => LoanPart::query()
                ->where('unit_id', $unit->id)
                ->orderBy('id')
                ->get()
                ->map($this->loan(...))
                ->all(),
        ];
    }

    /** @return array<string, mixed> */
    private function extra(ExtraWork $w): array
    {
        return [
            'id' => $w->id,
            'text' => $w->text,
            'hours' => (float) $w->hours,
            'price' => (float) $w->price,
            'askedBy' => $this->names->of($w->asked_by),
            'askedAt' => $w->asked_at->toIso8601ZuluString(),
            'answer' => $w->answer,
            'answeredBy' => $w->answered_by,
            'how' => $w->how,
            'recordedBy' => $this->names->of($w->recorded_by),
        ];
    }

    /** @return array<string, mixed> */
    private function cause(VehicleCause $c): array
    {
        return [
            'id' => $c->id,
            'cause' => $c->cause,
            'name' => $c->name,
            'condition' => $c->condition,
            'note' => $c->note,
            'by' => $this->names->of($c->named_by),
            'at' => $c->named_at->toIso8601ZuluString(),
            'settledBy' => $c->settled_by_name,
            'settledHow' => $c->settled_how,
            'settledAt' => $c->settled_at?->toIso8601ZuluString(),
        ];
    }

    /** @return array<string, mixed> */
    private function loan(LoanPart $p): array
    {
        return [
            'id' => $p->id,
            'name' => $p->name,
            'origin' => $p->origin,
            'reason' => $p->reason,
            'by' => $this->names->of($p->fitted_by),
            'at' => $p->fitted_at->toIso8601ZuluString(),
            'outBy' => $this->names->of($p->out_by),
            'outAt' => $p->out_at?->toIso8601ZuluString(),
        ];
    }
}
