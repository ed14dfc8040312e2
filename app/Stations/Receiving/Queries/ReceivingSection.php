<?php

namespace App\Stations\Receiving\Queries;

use App\Catalog\Models\Vocabulary;
use App\Catalog\Read\FamilyOutline;
use App\Shop\Queries\PeopleNames;
use App\Stations\Receiving\Models\Converter;
use App\Yard\Contracts\Section;
use App\Yard\Models\CreditLine;
use App\Yard\Models\DamageMark;
use App\Yard\Models\Photo;
use App\Yard\Models\Unit;

final class ReceivingSection implements Section
{
    public function __construct(private readonly PeopleNames $names)
    {
    }

    public function has(Unit $unit): bool
    {
        return true;
    }

    public function of(Unit $unit): array
    {
        return [
            'receivedBy' => $this->names->of($unit->received_by),
            'receivedAt' => $unit->received_at->toIso8601ZuluString(),
            'vin' => $unit->vin,
            'odometer' => $unit->odometer_typed,
            'odometerKm' => $unit->odometer_km,
            'engine' => $unit->engine,
            'complaint' => $unit->complaint,
            'codes' => $unit->troubleCodes->pluck('code')->all(),
            'sender' => $unit->sender,
            'senderDiagnosis' => $unit->sender_diagnosis,
            'clues' => self::clues($unit),
            'missing' => $unit->missing(),
            'failedHard' => $unit->failedHard(),
            'repairHours' => (float) $unit->repair_hours,
            'gradeReason' => $unit->grade_reason,
            'proposedGrade' => $unit->proposed_grade,
            'creditLines' => array_map(fn (CreditLine $l) => $l->shown(), $unit->creditInForce()),
            'creditRevision' => self::revision($unit->credit_revision),
            'flags' => $unit->flags,
            'damage' => $unit->damageMarks
                ->map(fn (DamageMark $d) => ['place' => $d->place, 'what' => $d->what])
                ->all(),
            'tagCode' => $unit->tag_code,
            'pallet' => $unit->pallet,
            'outline' => $unit->family === null ? null : FamilyOutline::of($unit->family),
            'weightKg' => $unit->weight_kg === null ? null : (float) $unit->weight_kg,
            'note' => $unit->note,
            'familyCode' => $unit->family?->code,
        ] + self::belongings($unit);
    }

    /** @return list<array<string, mixed>> what the owner said of the vehicle, with what it means */
    private static function clues(Unit $unit): array
    {
        $vocabulary = $unit->clues === [] ? [] : array_column(Vocabulary::body('intake-clues')->groups, null, 'id');
        $clues = [];
        foreach ($unit->clues as $group => $value) {
            $clues[] = [
                'id' => $group,
                'name' => $vocabulary[$group]->name ?? $group,
                'value' => $value,
                'means' => $vocabulary[$group]->means->{$value} ?? null,
            ];
        }

        return $clues;
    }

    /**
     * @param  array<string, mixed>|null  $revision
     * @return array<string, mixed>|null
     */
    private static function revision(?array $revision): ?array
    {
        return $revision === null
            ? null
            : array_intersect_key($revision, array_flip(['before', 'gradeBefore', 'reason', 'by', 'at']));
    }

    /** @return array<string, mixed> pictures and converters of the unit */
    private static function belongings(Unit $unit): array
    {
        return [
            // Rows as they are: a unit may have hundreds of pictures.
            'photos' => Photo::query()
                ->where('unit_id', $unit->id)
                ->orderBy('id')
                ->toBase()
                ->get(['id', 'place', 'station', 'width', 'height'])
                ->all(),
            'converters' => Converter::query()
                ->where('core_unit_id', $unit->id)
                ->get()
                ->map(
                    fn (Converter $c) => [
                        'serial' => $c->serial,
                        'state' => $c->state,
                        'stallClass' => $c->stall_class,
                        'lockup' => $c->lockup,
                        'hub' => $c->hub,
                        'coreValue' => (float) $c->core_value,
                        'note' => $c->note,
                    ],
                )
                ->all(),
        ];
    }
}
