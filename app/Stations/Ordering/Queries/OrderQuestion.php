<?php

namespace App\Stations\Ordering\Queries;

use App\Catalog\Models\Family;
use App\Catalog\Models\Option;
use App\Catalog\Models\Package;
use App\Catalog\Models\Variant;
use App\Catalog\Read\VariantHardware;
use App\Kernel\Refusal;
use App\Stations\Ordering\Duty;
use App\Yard\AskedOrder;
use Illuminate\Support\Collection;
use Yard\Core\Quantity\Unit as MeasureUnit;

/** An order as the core reads it: catalog, house, customer, unit and duty in one. */
final readonly class OrderQuestion
{
    /** Fields of an option that are rules. */
    private const RULES = [
        'requires',
        'requiresAny',
        'excludes',
        'omits',
        'omitWhy',
        'operations',
        'checks',
        'finalChecks',
        'fluid_l',
        'variantOnly',
        'dutyOnly',
        'limit',
        'power',
        'why',
    ];

    /** How a lining slides shows in the test cell; margins go by its stated friction. */
    private const SLIDES = ['staticRatio' => 0, 'muFall_s_per_m' => 0];

    /**
     * @param  Collection<string, Option>  $options  of the family, by code
     * @param  array<string, array{question: string, choice: string, reason: string}>  $house options a house rule
     *     brought
     * @param  array<string, mixed>  $input  what PackageOrder reads
     */
    private function __construct(
        public Family $family,
        public AskedOrder $order,
        public ?Duty $duty,
        public Package $package,
        public Collection $options,
        public array $house,
        public float $rate,
        public array $input,
    ) {
    }

    /** @param  Collection<string, Option>  $options */
    private static function mustBeKnown(Collection $options, AskedOrder $order, Family $family): void
    {
        foreach (['add' => $order->add, 'drop' => $order->drop] as $field => $codes) {
            foreach ($codes as $i => $code) {
                $options->has($code) ||
                    throw Refusal::at("/$field/$i", "There is no option \"$code\" for the {$family->name}.");
            }
        }
    }

    private static function package(Family $family, string $code): Package
    {
        return Package::query()->where('family_id', $family->id)->where('code', $code)->first() ??
            throw Refusal::at('/package', "There is no package \"$code\" for the {$family->name}.");
    }

    /**
     * @param  Package|null  $package  the one asked for, where it is at hand
     *
     * @throws Refusal when the package or an option does not exist
     */
    public static function of(
        Family $family,
        AskedOrder $order,
        ?Duty $duty,
        ?Variant $variant,
        ?Package $package = null,
    ): self {
        if ($package?->family_id !== $family->id || $package->code !== $order->package) {
            $package = self::package($family, $order->package);
        }
        $options = Option::query()->where('family_id', $family->id)->orderBy('id')->get()->keyBy('code');
        self::mustBeKnown($options, $order, $family);
        $schools = SchoolsInForce::inForce();
        $rate = $schools->number('labour-rate');
        $always = array_column($family->body['always'], 'option');
        ['options' => $brought, 'house' => $house] = $schools->package($family, $package->body['options']);
        // A wish overrules the package and what the customer took off; the house list stands.
        $drop = array_values(array_diff($order->drop, $order->add, $always));
        $hardware = $variant->hardware ?? [];
        $fit =
            array_intersect_key($hardware, ['hub' => 0, 'lockup' => 0]) +
            (isset($package->body['stall_rpm']) ? ['stall_rpm' => $package->body['stall_rpm']] : []);

        return new self(
            $family,
            $order,
            $duty,
            $package,
            $options,
            $house,
            $rate,
            [
                'options' => $options->map(self::option(...))->values()->all(),
                'duty' => $package->duty,
                'wanted' => $order->add,
                'always' => $always,
                'package' => array_values(array_diff($brought, $drop)),
                'unwanted' => $drop,
                'oneOf' => $family->body['groups'] ?? [],
                'rate' => $rate,
                'neverOmit' => $family->body['neverOmit'] ?? [],
                'base' => self::base($package),
            ] +
                ($fit === [] ? [] : ['converterFit' => $fit]) +
                ($variant === null ? [] : ['variant' => $variant->code]) +
                self::power($family, $hardware, $duty, $schools),
        );
    }

    /** @return array<string, mixed> what the package is without its options */
    private static function base(Package $package): array
    {
        return [
            'price' => (float) $package->base_price,
            'hours' => (float) $package->base_hours,
            'fluid_l' => $package->body['fluid_l'],
            'parts' => $package->body['parts'],
        ];
    }

    /** @return array<string, mixed> */
    private static function option(Option $o): array
    {
        $rules = array_intersect_key($o->body, array_flip(self::RULES));

        return [
            'code' => $o->code,
            'name' => $o->name,
            'price' => (float) $o->price,
            'hours' => (float) $o->hours,
            'adds' => $o->body['parts'] ?? [],
        ] +
            (isset($rules['power']) ? ['power' => self::held($rules['power'])] : []) +
            $rules +
            (isset($o->body['converter'])
                ? [
                    'converter' => array_intersect_key($o->body['converter'], [
                        'hub' => 0,
                        'lockup' => 0,
                        'points' => 0,
                    ]),
                ]
                : []);
    }

    /**
     * @param  array<string, mixed>  $power
     * @return array<string, mixed> as margins are reckoned from it
     */
    private static function held(array $power): array
    {
        foreach ($power['capacities'] ?? [] as $element => $as) {
            if (isset($as['lining'])) {
                $power['capacities'][$element]['lining'] = array_diff_key($as['lining'], self::SLIDES);
            }
        }

        return $power;
    }

    /**
     * @param  array<string, mixed>  $hardware  of the variant
     * @return array<string, mixed> empty while the duty or the family's hardware is not known
     */
    private static function power(Family $family, array $hardware, ?Duty $duty, SchoolsInForce $schools): array
    {
        if ($duty === null || ! isset($family->body['power'])) {
            return [];
        }
        $power = self::held(VariantHardware::of($family->body['power'], $family->train, $hardware));
        $shift =
            isset($power['shift']) && $duty->load !== null
                ? ['shift' => $power['shift'] + ['vehicle' => $duty->load]]
                : [];

        return [
            'enforceMargins' => $duty->hold,
            'power' => $shift +
                $power + [
                    'engine' => $duty->engine(),
                    'inputSpeed_rpm' => $duty->shiftSpeed,
                    'limit' => $schools->number('margin-limit'),
                    'pressureLimit_kpa' => MeasureUnit::of('psi')->convert(
                        $schools->number('pressure-limit'),
                        MeasureUnit::of('kPa'),
                    ),
                ],
        ];
    }
}
