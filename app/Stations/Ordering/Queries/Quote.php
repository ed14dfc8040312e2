<?php

namespace App\Stations\Ordering\Queries;

use App\Interchange\Queries\VehicleSupply;
use App\Kernel\Refusal;
use App\Shop\HouseRules;
use App\Yard\Contracts\Alternatives;
use App\Yard\Contracts\FieldRecord;
use App\Yard\Models\Build;
use App\Yard\Models\Unit;
use Yard\Core\Life\FailureRate;

/**
 * What the customer is offered: this build line by line, and beside it a shelf unit and declining, with cost, time and
 * risk.
 */
final class Quote implements Alternatives
{
    public function __construct(
        private readonly HouseRules $rules,
        private readonly Specification $resolve,
        private readonly VehicleSupply $serve,
        private readonly FieldRecord $field,
    ) {
    }

    /** @return list<array<string, mixed>> */
    public function of(Unit $unit): array
    {
        try {
            return $unit->currentBuild === null ? [] : $this->quote($unit)['alternatives'];
        } catch (Refusal) {
            return []; // an order that cannot be quoted has nothing to hold against
        }
    }

    /** @return array<string, mixed> */
    public function quote(Unit $unit): array
    {
        $build = $unit->currentBuild ?? throw new Refusal('Write the order first; the quote follows from it.', 409);
        $spec =
            $build->spec ??
            $this->resolve->ofBuild($build->setRelation('unit', $unit));
        if ($spec['status'] !== 'ok') {
            throw new Refusal('The order cannot be quoted: '.$spec['conflicts'][0]['explain'], 409);
        }
        $vehicle = $build->vehicle;
        $core = self::core($unit);

        return [
            'coreTag' => $unit->core_tag,
            'serial' => $build->serial,
            'customer' => $build->customer?->name,
            'vehicle' => $vehicle === null ? null : "$vehicle->maker $vehicle->model, $vehicle->engine",
            'variant' => $unit->knownVariant()->name,
            'package' => $spec['package']['name'],
            'lines' => self::lines($spec),
            'price' => $spec['price'],
            'core' => $core,
            'total' => round($spec['price'] + array_sum(array_column($core, 'amount')), 2),
            'made' => [
                'pieces' => array_sum(array_column($spec['bom'], 'count')),
                'hours' => $spec['hours'],
                'converter' => $this->converter($spec['options']),
                'work' => array_column($spec['work'], 'text'),
            ],
            'fluid' => $spec['fluid'],
            'promisedOn' => $build->promised_on?->format('Y-m-d'),
            'holds' => $spec['margins'] ?? null,
            'surprises' => self::surprises($spec['options']),
            'alternatives' => array_values(
                array_filter([$this->rebuild($unit, $spec), $this->shelf($unit, $build), self::decline($unit)]),
            ),
        ];
    }

    /** @return list<array{label: string, amount: float}> */
    private static function core(Unit $unit): array
    {
        return $unit->ownership !== 'exchange' ? [] : [[
            'label' => 'Core charge, given back when a core of the family comes in',
            'amount' => (float) $unit->knownVariant()->core_charge,
        ]];
    }

    /**
     * @param  array<string, mixed>  $spec
     * @return list<array{label: string, amount: float}> the package, and every option that costs
     */
    private static function lines(array $spec): array
    {
        $options = round(array_sum(array_column($spec['options'], 'price')), 2);
        $lines = [
            ['label' => $spec['package']['name'].' package', 'amount' => round($spec['price'] - $options, 2)],
        ];
        foreach ($spec['options'] as $option) {
            $option['price'] > 0 && ($lines[] = ['label' => $option['name'], 'amount' => $option['price']]);
        }

        return $lines;
    }

    /**
     * @param  list<array<string, mixed>>  $options
     * @return list<array{option: string, text: string}>
     */
    private static function surprises(array $options): array
    {
        return array_values(array_map(
            fn (array $o) => ['option' => $o['name'], 'text' => $o['surprise']],
            array_filter($options, fn (array $o) => $o['surprise'] !== null),
        ));
    }

    /**
     * @param  array<string, mixed>  $spec
     * @return array<string, mixed>
     */
    private function rebuild(Unit $unit, array $spec): array
    {
        $rate = $this->rules->number('bench-cost');
        $cost = round($spec['partsCost'] + $spec['hours'] * $rate, 2);
        $days = $spec['hours'] / $this->rules->number('bench-hours') + $this->rules->number('waiting-days');

        return [
            'what' => 'Rebuild this one',
            'price' => $spec['price'],
            'cost' => $cost,
            'left' => round($spec['price'] - $cost, 2),
            'days' => (int) ceil($days),
            'risk' => $this->risk($unit->knownVariant()->id),
            'note' => "parts {$spec['partsCost']}, {$spec['hours']} h at $rate",
        ];
    }

    /** @return array<string, mixed> */
    private static function decline(Unit $unit): array
    {
        $credit = number_format((float) $unit->credit, 2);

        return [
            'what' => 'Decline',
            'price' => 0.0,
            'cost' => 0.0,
            'left' => 0.0,
            'days' => 0,
            'risk' => null,
            'note' => "The core stays in the yard with its credit of $credit.",
        ];
    }

    /**
     * @return array<string, mixed>|null the cheapest unit on the shelf that nobody has ordered
     */
    private function shelf(Unit $unit, Build $build): ?array
    {
        if ($build->vehicle === null) {
            return null;
        }
        foreach ($this->serve->of($build->vehicle, null)['units'] as $found) {
            if (
                $found['place'] === 'shelf' &&
                $found['promisedTo'] === null &&
                ! $found['held'] &&
                $found['coreTag'] !== $unit->core_tag
            ) {
                $other = Build::query()->where('serial', $found['serial'])->firstOrFail();
                $cost = round(
                    ($other->spec['partsCost'] ?? 0) +
                        (float) $other->hours * $this->rules->number('bench-cost') +
                        $found['total'],
                    2,
                );
                $price = round((float) $other->price + $found['total'], 2);

                return [
                    'what' => "Shelf unit {$found['serial']}",
                    'price' => $price,
                    'cost' => $cost,
                    'left' => round($price - $cost, 2),
                    'days' => (int) ceil(
                        $found['hours'] / $this->rules->number('bench-hours') + $this->rules->number('shelf-days'),
                    ),
                    'risk' => $this->risk((int) $other->unit()->firstOrFail()->variant_id),
                    'note' => $found['steps'] === 0
                            ? 'fits as it is'
                            : "with {$found['steps']} conversion steps for ".number_format($found['total'], 2),
                ];
            }
        }

        return null;
    }

    /**
     * @return array{returned: int, shipped: int, lower: float,
     *     upper: float} returns among shipped units of the variant, with the exact interval
     */
    private function risk(int $variantId): array
    {
        $record = $this->field->ofVariant($variantId);
        $interval =
            $record['shipped'] > 0
                ? FailureRate::ofUnits($record['returned'], $record['shipped'])
                : null;

        return [
            'returned' => $record['returned'],
            'shipped' => $record['shipped'],
            'lower' => $interval->lower ?? 0.0,
            'upper' => $interval->upper ?? 1.0,
        ];
    }

    /** @param  list<array{name: string, converter: bool}>  $options */
    private function converter(array $options): ?string
    {
        foreach ($options as $option) {
            if ($option['converter']) {
                return $option['name'];
            }
        }

        return null;
    }
}
