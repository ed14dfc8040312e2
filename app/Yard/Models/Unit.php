<?php

namespace App\Yard\Models;

use App\Catalog\Models\Family;
use App\Catalog\Models\JobType;
use App\Catalog\Models\Variant;
use App\Kernel\Ledger\AccountedRecord;
use App\Kernel\Ledger\Subject;
use App\Kernel\Refusal;
use App\Shop\Models\Customer;
use App\Shop\Models\Person;
use App\Yard\StationName;
use App\Yard\UnitInHand;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Support\Carbon;

/**
 * One physical unit, from core tag to return. Every station works on it.
 *
 * @property int $id
 * @property string $core_tag
 * @property int $job_type_id
 * @property string $ownership
 * @property int|null $customer_id
 * @property StationName $station
 * @property Carbon $station_since
 * @property string $rack
 * @property string $pallet
 * @property int|null $family_id
 * @property int|null $variant_id
 * @property Carbon|null $identified_at
 * @property int|null $current_build_id
 * @property Carbon|null $promised_on
 * @property string $vehicle
 * @property string|null $vin
 * @property int|null $odometer_km
 * @property string $odometer_typed
 * @property string $engine
 * @property string $tag_code
 * @property string $complaint
 * @property string $sender
 * @property string|null $sender_diagnosis
 * @property array<mixed> $clues
 * @property list<string> $flags
 * @property string $repair_hours
 * @property string $grade
 * @property string|null $proposed_grade
 * @property string $grade_reason
 * @property string $credit
 * @property array<mixed>|null $credit_revision
 * @property string|null $weight_kg
 * @property string $note
 * @property array<mixed> $symptoms
 * @property list<array{km: int, typed: string, kind: string, said: string, by: string}> $timeline
 * @property array<string, string> $leak  what was seen of a leak, by feature of the family's table
 * @property array<mixed> $pressures
 * @property Carbon $received_at
 * @property int $received_by
 * @property int $version
 * @property Family|null $family
 * @property Variant|null $variant
 * @property JobType $jobType
 * @property Customer|null $customer
 * @property Person $receiver
 * @property Build|null $currentBuild
 * @property Collection<int, Build> $builds
 * @property Collection<int, Hold> $holds
 * @property Collection<int, IntakePart> $intakeParts
 * @property Collection<int, TroubleCode> $troubleCodes
 * @property Collection<int, DamageMark> $damageMarks
 * @property Collection<int, CreditLine> $creditLines
 *
 * Only with the scope named():
 * @property-read string|null $family_code
 * @property-read string|null $family_name
 * @property-read string|null $variant_code
 * @property-read string|null $variant_name
 * @property-read string $job_code
 * @property-read string $job_name
 * @property-read string $job_route
 * @property-read string|null $customer_code
 * @property-read string|null $customer_name
 * @property-read string|null $build_serial
 * @property-read int|null $build_generation
 * @property-read string|null $build_state
 * @property-read string|null $package_name
 */
final class Unit extends AccountedRecord implements Subject
{
    protected $table = 'units';

    protected $fillable = [
        'core_tag',
        'job_type_id',
        'ownership',
        'customer_id',
        'station',
        'station_since',
        'rack',
        'pallet',
        'family_id',
        'variant_id',
        'identified_at',
        'current_build_id',
        'promised_on',
        'vehicle',
        'vin',
        'odometer_km',
        'odometer_typed',
        'engine',
        'tag_code',
        'complaint',
        'sender',
        'sender_diagnosis',
        'clues',
        'flags',
        'repair_hours',
        'grade',
        'proposed_grade',
        'grade_reason',
        'credit',
        'credit_revision',
        'weight_kg',
        'note',
        'symptoms',
        'timeline',
        'leak',
        'pressures',
        'received_at',
        'received_by',
        'version',
    ];

    /** What the table fills in by itself, so that a new unit reads like one that was fetched. */
    protected $attributes = ['symptoms' => '{}', 'pressures' => '{}', 'timeline' => '[]', 'leak' => '{}'];

    protected $casts = [
        'clues' => 'array',
        'symptoms' => 'array',
        'timeline' => 'array',
        'leak' => 'array',
        'pressures' => 'array',
        'flags' => 'array',
        'credit_revision' => 'array',
        'received_at' => 'datetime',
        'station_since' => 'datetime',
        'identified_at' => 'datetime',
        'promised_on' => 'date:Y-m-d', 'station' => StationName::class];

    /** @return BelongsTo<Family, $this> */
    public function family(): BelongsTo
    {
        return $this->belongsTo(Family::class);
    }

    /** @return BelongsTo<Variant, $this> */
    public function variant(): BelongsTo
    {
        return $this->belongsTo(Variant::class);
    }

    /** @return BelongsTo<JobType, $this> */
    public function jobType(): BelongsTo
    {
        return $this->belongsTo(JobType::class);
    }

    /** @return BelongsTo<Customer, $this> */
    public function customer(): BelongsTo
    {
        return $this->belongsTo(Customer::class);
    }

    /** @return BelongsTo<Person, $this> */
    public function receiver(): BelongsTo
    {
        return $this->belongsTo(Person::class, 'received_by');
    }

    /** @return BelongsTo<Build, $this> */
    public function currentBuild(): BelongsTo
    {
        return $this->belongsTo(Build::class, 'current_build_id');
    }

    /** @return HasMany<Build, $this> */
    public function builds(): HasMany
    {
        return $this->hasMany(Build::class);
    }

    /** @return HasMany<Hold, $this> */
    public function holds(): HasMany
    {
        return $this->hasMany(Hold::class);
    }

    /** @return HasMany<IntakePart, $this> parts it came without, or with them ruined */
    public function intakeParts(): HasMany
    {
        return $this->hasMany(IntakePart::class)->orderBy('position');
    }

    /** @return HasMany<TroubleCode, $this> as received; those of a return belong to the return */
    public function troubleCodes(): HasMany
    {
        return $this->hasMany(TroubleCode::class)->whereNull('return_id')->orderBy('position');
    }

    /** @return HasMany<DamageMark, $this> */
    public function damageMarks(): HasMany
    {
        return $this->hasMany(DamageMark::class)->orderBy('position');
    }

    /** @return HasMany<CreditLine, $this> */
    public function creditLines(): HasMany
    {
        return $this->hasMany(CreditLine::class)->orderBy('position');
    }

    /** @return list<array{part: string, count: int}> numbers of parts it came without */
    public function missing(): array
    {
        return $this->partsOf('missing');
    }

    /** @return list<array{part: string, count: int}> numbers of hard parts it came with ruined */
    public function failedHard(): array
    {
        return $this->partsOf('failed');
    }

    /** @return list<CreditLine> the credit in force */
    public function creditInForce(): array
    {
        $revision = $this->credit_revision === null ? 0 : 1;

        return array_values($this->creditLines->where('revision', $revision)->all());
    }

    /** @return list<array{part: string, count: int}> */
    private function partsOf(string $kind): array
    {
        return array_values(
            $this->loadMissing('intakeParts.part')
                ->intakeParts->where('kind', $kind)
                ->map(fn (IntakePart $p) => ['part' => $p->part->number, 'count' => $p->count])
                ->all(),
        );
    }

    /**
     * With the names lists and headers show, in one query instead of one a relation.
     *
     * @param  \Illuminate\Database\Eloquent\Builder<Unit>  $query
     */
    public function scopeNamed($query): void
    {
        $query
            ->leftJoin('families', 'families.id', '=', 'units.family_id')
            ->leftJoin('variants', 'variants.id', '=', 'units.variant_id')
            ->join('job_types', 'job_types.id', '=', 'units.job_type_id')
            ->leftJoin('customers', 'customers.id', '=', 'units.customer_id')
            ->leftJoin('builds', 'builds.id', '=', 'units.current_build_id')
            ->leftJoin('packages', 'packages.id', '=', 'builds.package_id')
            ->select(
                'units.*',
                'families.code AS family_code',
                'families.name AS family_name',
                'variants.code AS variant_code',
                'variants.name AS variant_name',
                'job_types.code AS job_code',
                'job_types.name AS job_name',
                'job_types.route AS job_route',
                'customers.code AS customer_code',
                'customers.name AS customer_name',
                'builds.serial AS build_serial',
                'builds.generation AS build_generation',
                'builds.state AS build_state',
                'packages.name AS package_name',
            );
    }

    /** @return array<string, Collection<int, \Illuminate\Database\Eloquent\Model>> lists that are known to be empty */
    public function nothingOf(): array
    {
        return array_filter(
            $this->getRelations(),
            fn (mixed $rows): bool => $rows instanceof Collection && $rows->isEmpty(),
        );
    }

    /** @param  string  $number core tag or unit serial, as scanned */
    public static function byNumber(string $number): self
    {
        return app(UnitInHand::class)->take($number) ?? self::numbered(self::query(), $number);
    }

    /**
     * @param  \Illuminate\Database\Eloquent\Builder<self>  $among
     */
    public static function numbered($among, string $number): self
    {
        return (clone $among)->where('units.core_tag', $number)->first() ??
            $among
                ->whereIn('units.id', Build::query()->select('unit_id')->where('serial', $number))
                ->firstOrFail();
    }

    /** Sends the unit to a station, if its job type goes there. */
    public function moveTo(StationName $station): void
    {
        if ($this->station !== $station) {
            $this->update(['station' => $station, 'station_since' => now()]);
        }
    }

    /** @throws Refusal where the family is not written down yet */
    public function knownFamily(): Family
    {
        return $this->family ?? throw new Refusal("The family of $this->core_tag is not known yet.", 409);
    }

    /** @throws Refusal where nobody has confirmed the variant yet */
    public function knownVariant(): Variant
    {
        return $this->variant ?? throw new Refusal("The variant of $this->core_tag is not confirmed yet.", 409);
    }

    public function ledgerStream(): string
    {
        return "unit:$this->id";
    }

    public function ledgerUnit(): int
    {
        return $this->id;
    }
}
