<?php

namespace App\Stations\Receiving\Actions;

use App\Catalog\Models\Family;
use App\Catalog\Models\JobType;
use App\Catalog\Models\Part;
use App\Kernel\Ledger\Ledger;
use App\Kernel\OrderedRows;
use App\Kernel\Refusal;
use App\Kernel\TypedQuantity;
use App\Money\Actions\OweCore;
use App\Money\Actions\WriteCredit;
use App\Money\CoreState;
use App\Money\Queries\CreditPrice;
use App\Money\Queries\GradeProposal;
use App\Shop\Models\Customer;
use App\Shop\Models\Person;
use App\Stations\Receiving\Models\Converter;
use App\Yard\Actions\PlaceHold;
use App\Yard\Contracts\Clues;
use App\Yard\Models\Unit;
use App\Yard\StationName;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\UniqueConstraintViolationException;
use Yard\Core\Credit\CoreCredit;
use Yard\Core\Credit\Grade;
use Yard\Core\Credit\Grading;
use Yard\Core\Vin\Vin;

/** A core arrives: tag, story, clues, what is missing, and what it is worth. */
final class ReceiveCore
{
    /** What was left out stands as empty: "nothing seen" and "not said" are the same at the door. */
    /** More than the hoist lifts. */
    private const HEAVIEST_KG = 2000;

    private const LEFT_OUT = [
        'rack' => '',
        'vehicle' => '',
        'odometer' => '',
        'engine' => '',
        'complaint' => '',
        'sender' => 'own',
        'senderDiagnosis' => null,
        'clues' => [],
        'failedHard' => [],
        'repairHours' => 0,
        'tagCode' => '',
        'pallet' => '',
        'weight' => '',
        'note' => '',
        'promisedOn' => null,
    ];

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
        try {
            $this->fill($unit, $in);
        } catch (UniqueConstraintViolationException) { // of a core that is new, only the tag can be there already
            throw Refusal::at('/coreTag', "The tag {$in['coreTag']} is already on another core.");
        }
        if ($unit->grade === 'X') {
            $unit->update(['station' => StationName::Closed]);
        }
        $this->ledger->onUnit($unit, 'core.received', $in + ['credit' => $unit->credit]);
        $this->owe->settle($unit);
        foreach ($unit->station === StationName::Identification ? $in['observed'] ?? [] : [] as $feature => $value) {
            // What the walk-round already showed of the variant is not asked again at the identification desk.
            $this->clues->answer($unit, (string) $feature, (string) $value, $by);
        }
        if (($in['converter'] ?? null) !== null && ($in['converter']['serial'] ?? '') !== '') {
            $this->receiveConverter($unit, $in['converter']);
        }
        $this->askForTheStory($unit, $by);
        self::nothingOf($unit, $in);

        return $unit;
    }

    /**
     * What it came without need not be looked up for the answer.
     *
     * @param  array<string, mixed>  $in
     */
    private static function nothingOf(Unit $unit, array $in): void
    {
        $lists = [
            'troubleCodes' => ['codes' => 0],
            'damageMarks' => ['damage' => 0],
            'intakeParts' => ['missing' => 0, 'failedHard' => 0],
        ];
        foreach ($lists as $list => $fields) {
            if (array_filter(array_intersect_key($in, $fields)) === []) {
                $unit->setRelation($list, new Collection());
            }
        }
    }

    /** What was not told is asked for before the unit goes on. */
    private function askForTheStory(Unit $unit, Person $by): void
    {
        if (trim($unit->complaint) === '') {
            $this->hold->place($unit, 'complaint-missing', 'The owner\'s complaint is missing.', $by);
        }
        if ($unit->sender === 'shop' && trim($unit->sender_diagnosis ?? '') === '') {
            $this->hold->place($unit, 'diagnosis-missing', 'The sending shop\'s diagnosis is missing.', $by);
        }
    }

    /**
     * @param  array<string, mixed>  $in
     * @return array{Grade, string} the grade given and why; another than the house rules give needs a reason
     */
    private static function graded(array $in, Grading $proposed): array
    {
        $grade = Grade::from($in['grade'] ?? $proposed->grade->value);
        $reason = trim($in['gradeReason'] ?? '');
        if ($grade !== $proposed->grade && $reason === '') {
            throw Refusal::at(
                '/gradeReason',
                "The house rules give grade {$proposed->grade->value} ({$proposed->reason}); say why it is "
                    ."{$grade->value}.",
            );
        }

        return [$grade, $reason === '' ? $proposed->reason : $reason];
    }

    /** @param  array<string, mixed>  $in */
    public function fill(Unit $unit, array $in): void
    {
        $customer = self::customer($in);
        $family = self::family($in);
        $vin = self::checkedVin($in['vin'] ?? null);
        $odometer = self::odometer($in);
        $flags = array_values(array_intersect(GradeProposal::FLAGS, $in['flags'] ?? []));
        $core = new CoreState(
            $unit->variant,
            $family?->id,
            $in['missing'] ?? [],
            $in['failedHard'] ?? [],
            (float) ($in['repairHours'] ?? 0),
            $flags,
        );
        $proposed = $this->grade->of($core);
        [$grade, $reason] = self::graded($in, $proposed);
        $credit = $this->credit->of($core, $grade);
        $unit->fill(self::asTyped($in));
        $unit->fill([
            'customer_id' => $customer?->id,
            'family_id' => $family?->id,
            'vin' => $vin,
            'odometer_km' => $odometer === null ? null : (int) round($odometer->si / 1000),
            'grade' => $grade->value,
            'proposed_grade' => $proposed->grade->value,
            'grade_reason' => $reason,
            'flags' => $flags,
            'credit' => $credit->amount(),
        ]);
        $fresh = ! $unit->exists;
        $unit->save();
        $this->lists($unit, $in, $credit, $fresh);
    }

    /**
     * What was written down in lists: parts missing or ruined, codes, damage, and the credit that follows.
     *
     * @param  array<string, mixed>  $in
     */
    private function lists(Unit $unit, array $in, CoreCredit $credit, bool $fresh): void
    {
        $numbers = array_column([...$in['missing'] ?? [], ...$in['failedHard'] ?? []], 'part');
        $ids = $numbers === [] ? collect() : Part::query()->whereIn('number', $numbers)->pluck('id', 'number');
        foreach (['missing' => $in['missing'] ?? [], 'failed' => $in['failedHard'] ?? []] as $kind => $parts) {
            OrderedRows::write(
                $unit->intakeParts()->where('kind', $kind),
                array_map(
                    fn (array $p) => ['kind' => $kind, 'part_id' => $ids[$p['part']], 'count' => $p['count'] ?? 1],
                    $parts,
                ),
                $fresh,
            );
        }
        $codes = array_map(fn (string $c) => ['code' => $c], $in['codes'] ?? []);
        OrderedRows::write($unit->troubleCodes(), $codes, $fresh);
        OrderedRows::write(
            $unit->damageMarks(),
            array_map(fn (array $d) => ['place' => $d['place'], 'what' => $d['what']], $in['damage'] ?? []),
            $fresh,
        );
        WriteCredit::lines($unit, $credit, $fresh);
    }

    /**
     * @param  array<string, mixed>  $in
     * @return array<string, mixed> the columns that hold what was typed, by name
     */
    private static function asTyped(array $in): array
    {
        $said = array_filter($in, fn (mixed $value) => $value !== null) + self::LEFT_OUT;

        return [
            'ownership' => $said['ownership'],
            'rack' => $said['rack'],
            'vehicle' => $said['vehicle'],
            'odometer_typed' => $said['odometer'],
            'engine' => $said['engine'],
            'complaint' => $said['complaint'],
            'sender' => $said['sender'],
            'sender_diagnosis' => $said['senderDiagnosis'],
            'clues' => (object) $said['clues'],
            'repair_hours' => $said['repairHours'],
            'tag_code' => mb_strtoupper(trim($said['tagCode'])),
            'pallet' => $said['pallet'],
            'weight_kg' => $said['weight'] === ''
                ? null
                : self::weight($said['weight']),
            'note' => $said['note'],
            'promised_on' => $said['promisedOn'],
        ];
    }

    /** @param  array<string, mixed>  $in */
    private static function customer(array $in): ?Customer
    {
        if (isset($in['customer'])) {
            return Customer::query()->where('code', $in['customer'])->first() ??
                throw Refusal::at('/customer', "There is no customer \"{$in['customer']}\".");
        }
        if ($in['ownership'] === 'customer') {
            throw Refusal::at('/customer', "A customer's own unit needs the customer.");
        }

        return null;
    }

    /** @param  array<string, mixed>  $in */
    private static function family(array $in): ?Family
    {
        return isset($in['family'])
            ? Family::query()->where('code', $in['family'])->first() ??
                throw Refusal::at('/family', "There is no family \"{$in['family']}\".")
            : null;
    }

    /** @param  array<string, mixed>  $in */
    private static function odometer(array $in): ?TypedQuantity
    {
        if (($in['odometer'] ?? '') === '') {
            return null;
        }
        $odometer = TypedQuantity::parse($in['odometer'], 'length', 'km', '/odometer');
        if ($odometer->si < 0 || $odometer->si > 3.0e9) {
            throw Refusal::at('/odometer', 'The odometer must lie between 0 and 3,000,000 km.');
        }

        return $odometer;
    }

    private static function weight(string $typed): float
    {
        $kg = TypedQuantity::parse($typed, 'mass', 'kg', '/weight')->si;
        if ($kg <= 0 || $kg > self::HEAVIEST_KG) {
            throw Refusal::at('/weight', 'The weight must lie above 0 and up to '.self::HEAVIEST_KG.' kg.');
        }

        return $kg;
    }

    private static function checkedVin(?string $typed): ?string
    {
        if ($typed === null || trim($typed) === '') {
            return null;
        }
        $vin = Vin::read($typed);
        if (! $vin->valid()) {
            throw Refusal::at(
                '/vin',
                match ($vin->problems[0]) {
                    'length' => 'A VIN has 17 characters; this one has '.mb_strlen($vin->normalised).'.',
                    'illegal-character' => 'A VIN has only digits and letters, and never I, O or Q.',
                    'year-code' => 'The tenth character of the VIN is no model-year code.',
                    default => 'The check digit of the VIN does not agree: position 9 is '
                        ."{$vin->foundDigit}, it should be {$vin->expectedDigit}. One character is misread.",
                },
            );
        }

        return $vin->normalised;
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
