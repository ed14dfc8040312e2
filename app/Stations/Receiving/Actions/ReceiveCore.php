<?php

namespace App\Stations\Receiving\Actions;

use App\Catalog\Models\Family;
use App\Catalog\Models\JobType;
use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Kernel\TypedQuantity;
use App\Money\Actions\OweCore;
use App\Money\Queries\CreditPrice;
use App\Money\Queries\GradeProposal;
use App\Shop\Models\Customer;
use App\Shop\Models\Person;
use App\Stations\Receiving\Models\Converter;
use App\Yard\Actions\PlaceHold;
use App\Yard\Contracts\Clues;
use App\Yard\Models\Unit;
use App\Yard\StationName;
use Yard\Core\Calculators;

/** A core arrives: tag, story, clues, what is missing, and what it is worth. */
final class ReceiveCore
{
    public function __construct(
        private readonly Ledger $ledger,
        private readonly CreditPrice $credit,
        private readonly PlaceHold $hold,
        private readonly GradeProposal $grade,
        private readonly OweCore $owe,
        private readonly Clues $clues,
    ) {
    }

    /** @param  array<string, mixed>  $in validated by IntakeRules */
    public function receive(array $in, Person $by): Unit
    {
        if (Unit::query()->where('core_tag', $in['coreTag'])->exists()) {
            throw Refusal::at('/coreTag', "The tag {$in['coreTag']} is already on another core.");
        }
        $jobType =
            JobType::query()->where('code', $in['jobType'])->first() ??
            throw Refusal::at('/jobType', "There is no job type \"{$in['jobType']}\".");
        $unit = new Unit([
            'core_tag' => $in['coreTag'],
            'job_type_id' => $jobType->id,
            'received_at' => now(),
            'received_by' => $by->id,
            'station_since' => now(),
            'station' => $jobType->route[0],
        ]);
        $unit->setRelation('jobType', $jobType);
        $this->fill($unit, $in);
        $unit->station = $unit->grade === 'X' ? StationName::Closed : $unit->station;
        $unit->save();
        $this->ledger->onUnit($unit, 'core.received', $in + ['credit' => $unit->credit]);
        $this->owe->settle($unit);
        foreach ($unit->station === StationName::Identification ? $in['observed'] ?? [] : [] as $feature => $value) {
            // What the walk-round already showed of the variant is not asked again at the identification desk.
            $this->clues->answer($unit, (string) $feature, (string) $value, $by);
        }
        if (($in['converter'] ?? null) !== null && ($in['converter']['serial'] ?? '') !== '') {
            $this->receiveConverter($unit, $in['converter']);
        }
        if (trim($in['complaint'] ?? '') === '') {
            $this->hold->place($unit, 'complaint-missing', 'The owner\'s complaint is missing.', $by);
        }
        if ($unit->sender === 'shop' && trim($in['senderDiagnosis'] ?? '') === '') {
            $this->hold->place($unit, 'diagnosis-missing', 'The sending shop\'s diagnosis is missing.', $by);
        }

        return $unit;
    }

    /** @param  array<string, mixed>  $in */
    public function fill(Unit $unit, array $in): void
    {
        $customer = isset($in['customer'])
            ? Customer::query()->where('code', $in['customer'])->first() ??
                throw Refusal::at('/customer', "There is no customer \"{$in['customer']}\".")
            : null;
        if ($in['ownership'] === 'customer' && $customer === null) {
            throw Refusal::at('/customer', "A customer's own unit needs the customer.");
        }
        $family = isset($in['family'])
            ? Family::query()->where('code', $in['family'])->first() ??
                throw Refusal::at('/family', "There is no family \"{$in['family']}\".")
            : null;
        $vin = self::checkedVin($in['vin'] ?? null);
        $odometer =
            ($in['odometer'] ?? '') === ''
                ? null
                : TypedQuantity::parse($in['odometer'], 'length', 'km', '/odometer');
        if ($odometer !== null && ($odometer->si < 0 || $odometer->si > 3.0e9)) {
            throw Refusal::at('/odometer', 'The odometer must lie between 0 and 3,000,000 km.');
        }
        $flags = array_values(array_intersect(GradeProposal::FLAGS, $in['flags'] ?? []));
        $proposed = $this->grade->of(
            $unit->variant,
            $family?->id,
            $in['missing'] ?? [],
            $in['failedHard'] ?? [],
            (float) ($in['repairHours'] ?? 0),
            $flags,
        );
        $grade = $in['grade'] ?? $proposed['grade'];
        $reason = trim($in['gradeReason'] ?? '');
        if ($grade !== $proposed['grade'] && $reason === '') {
            throw Refusal::at(
                '/gradeReason',
                "The house rules give grade {$proposed['grade']} ({$proposed['reason']}); say why it is $grade.",
            );
        }
        $credit = $this->credit->of(
            $unit->variant,
            $family?->id,
            $in['missing'] ?? [],
            $in['failedHard'] ?? [],
            (float) ($in['repairHours'] ?? 0),
            $grade,
        );
        $unit->fill([
            'ownership' => $in['ownership'],
            'customer_id' => $customer?->id,
            'family_id' => $family?->id,
            'rack' => $in['rack'] ?? '',
            'vehicle' => $in['vehicle'] ?? '',
            'vin' => $vin,
            'odometer_km' => $odometer === null ? null : (int) round($odometer->si / 1000),
            'odometer_typed' => $in['odometer'] ?? '',
            'engine' => $in['engine'] ?? '',
            'complaint' => $in['complaint'] ?? '',
            'codes' => $in['codes'] ?? [],
            'sender' => $in['sender'] ?? 'own',
            'sender_diagnosis' => $in['senderDiagnosis'] ?? null,
            'clues' => (object) ($in['clues'] ?? []),
            'missing' => $in['missing'] ?? [],
            'failed_hard' => $in['failedHard'] ?? [],
            'repair_hours' => $in['repairHours'] ?? 0,
            'grade' => $grade,
            'proposed_grade' => $proposed['grade'],
            'grade_reason' => $reason === '' ? $proposed['reason'] : $reason,
            'flags' => $flags,
            'damage' => $in['damage'] ?? [],
            'tag_code' => mb_strtoupper(trim($in['tagCode'] ?? '')),
            'pallet' => $in['pallet'] ?? '',
            'credit' => $credit['credit'],
            'credit_lines' => $credit['lines'],
            'weight_kg' => ($in['weight'] ?? '') === ''
                    ? null
                    : TypedQuantity::parse($in['weight'], 'mass', 'kg', '/weight')->si,
            'note' => $in['note'] ?? '',
            'promised_on' => $in['promisedOn'] ?? null,
        ]);
    }

    private static function checkedVin(?string $typed): ?string
    {
        if ($typed === null || trim($typed) === '') {
            return null;
        }
        $check = Calculators::call('vin.check', ['vin' => $typed]);
        if ($check['valid'] !== true) {
            throw Refusal::at(
                '/vin',
                match ($check['problems'][0]) {
                    'length' => 'A VIN has 17 characters; this one has '.
                        mb_strlen((string) $check['normalised']).
                        '.',
                    'illegal-character' => 'A VIN has only digits and letters, and never I, O or Q.',
                    'year-code' => 'The tenth character of the VIN is no model-year code.',
                    default => 'The check digit of the VIN does not agree: position 9 is '
                        ."{$check['checkDigit']['found']}, "
                            ."it should be {$check['checkDigit']['expected']}. One character is misread.",
                },
            );
        }

        return (string) $check['normalised'];
    }

    /**
     * @param  array{serial: string, state?: string, stallClass?: string, lockup?: string, hub?: string,
     *     coreValue?: float, note?: string}  $in
     */
    private function receiveConverter(Unit $unit, array $in): void
    {
        if (Converter::query()->where('serial', $in['serial'])->exists()) {
            throw Refusal::at('/converter/serial', "The converter {$in['serial']} is already in the house.");
        }
        Converter::create([
            'serial' => $in['serial'],
            'core_unit_id' => $unit->id,
            'state' => $in['state'] ?? 'core',
            'stall_class' => $in['stallClass'] ?? '',
            'lockup' => $in['lockup'] ?? '',
            'hub' => $in['hub'] ?? '',
            'core_value' => $in['coreValue'] ?? 0,
            'note' => $in['note'] ?? '',
        ]);
        $this->ledger->onUnit($unit, 'converter.received', [
            'serial' => $in['serial'],
            'state' => $in['state'] ?? 'core',
        ]);
    }
}
