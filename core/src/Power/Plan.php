<?php

declare(strict_types=1);

namespace Yard\Core\Power;

use Yard\Core\GearTrain\Train;
use Yard\Core\Input;

/** A solved train with its duty: solved once, evaluated for as many sets of capacities as a search tries. */
final class Plan
{
    private const NOTHING = 1e-9;

    /**
     * @param  array<string, array{state: string, ratio: ?float, speeds: array<string, float>, elementTorque: array<string, float>}>  $solved  gear => solution
     * @param  array<string, list<string>>  $applied
     * @param  array<string, Capacity>  $capacities
     * @param  array<string, float>  $pressures  gear => kPa
     * @param  array<string, float>  $converter  gear => torque ratio
     * @param  array<string, float>  $speedLimits
     */
    private function __construct(
        public readonly array $solved,
        public readonly array $applied,
        public readonly array $capacities,
        public readonly array $pressures,
        private readonly array $converter,
        public readonly array $speedLimits,
        public readonly float $inputTorque,
        public readonly float $inputSpeed,
        public readonly float $limit,
    ) {
    }

    public static function read(Input $in, Train $train): self
    {
        $solved = $applied = [];
        foreach ($in->list('gears', 1) as $gear) {
            $name = $gear->name('name');
            if (isset($solved[$name])) {
                throw $gear->at('name')->fail('duplicate', "The gear \"$name\" is listed twice.");
            }
            $applied[$name] = [];
            foreach ($gear->list('applied') as $item) {
                isset($train->elements[$item->asString()]) || throw $item->fail('unknown-element', "The element \"{$item->asString()}\" is not in the list of elements.");
                $applied[$name][] = $item->asString();
            }
            $solved[$name] = $train->solve($applied[$name]);
        }
        $speedLimits = [];
        foreach ($in->optional('speedLimits_rpm')?->asMap() ?? [] as $node => $limit) {
            isset(self::nodes($train)[$node]) || throw $limit->fail('unknown-node', "No set and no element has a shaft called \"$node\".");
            $speedLimits[$node] = $limit->asNumber(above: 0.0);
        }

        return new self($solved, $applied, self::readCapacities($in->at('capacities'), $train), self::byGear($in, 'pressure_kpa', array_map(strval(...), array_keys($solved)), null), self::byGear($in, 'converterRatio', array_map(strval(...), array_keys($solved)), 1.0),
            $speedLimits, $in->number('inputTorque_nm', min: 0.0), $in->has('inputSpeed_rpm') ? $in->number('inputSpeed_rpm', min: 0.0) : 0.0, $in->has('limit') ? $in->number('limit', above: 0.0) : 1.0);
    }

    /** @return array<string, int> the shafts of a train, the case among them */
    private static function nodes(Train $train): array
    {
        $nodes = [Train::CASE => 1];
        foreach ($train->sets as $set) {
            $nodes += [$set->sun => 1, $set->ring => 1, $set->carrier => 1];
        }
        foreach ($train->elements as $element) {
            $nodes += [$element->a => 1, $element->b => 1];
        }

        return $nodes;
    }

    /** @return array<string, Capacity> */
    public static function readCapacities(?Input $in, Train $train): array
    {
        $nodes = self::nodes($train);
        $out = [];
        foreach ($in?->asMap() ?? [] as $id => $capacity) {
            isset($train->elements[$id]) || throw $capacity->fail('unknown-element', "The element \"$id\" is not in the list of elements.");
            $out[$id] = Capacity::read($capacity, $nodes);
        }

        return $out;
    }

    /**
     * @param  array<string, Capacity>  $capacities
     * @param  array<string, float>  $pressures
     * @return array{gears: list<array<string, mixed>>, weakest: array{gear: string, element: string, margin: float, demand_nm: float, capacity_nm: float}|null, largest: ?float, holds: bool, unknown: list<array{gear: string, element: string}>}
     */
    public function evaluate(array $capacities, array $pressures): array
    {
        $gears = $unknown = [];
        $weakest = $largest = null;
        foreach ($this->solved as $gear => $solved) {
            $gear = (string) $gear;
            $rows = [];
            foreach ($this->applied[$gear] as $id) {
                $share = $solved['elementTorque'][$id] ?? null;
                $capacity = $capacities[$id] ?? null;
                if ($share === null || $capacity === null) {
                    // A split that statics does not determine, or an element nobody described, is named and not guessed.
                    $unknown[] = ['gear' => $gear, 'element' => $id];

                    continue;
                }
                $perNm = abs($share) * $this->converter[$gear];
                $demand = $perNm * $this->inputTorque;
                $drum = $capacity->oil === null ? 0.0 : ($solved['speeds'][$capacity->oil['node']] ?? 0.0) * $this->inputSpeed;
                $held = $capacity->at($pressures[$gear], $share, $drum);
                $row = ['element' => $id, 'demand_nm' => $demand] + $held;
                if ($demand > self::NOTHING) {
                    $row['margin'] = $held['capacity_nm'] / $demand;
                    if ($weakest === null || $row['margin'] < $weakest['margin']) {
                        $weakest = ['gear' => $gear, 'element' => $id, 'margin' => $row['margin'], 'demand_nm' => $demand, 'capacity_nm' => $held['capacity_nm']];
                    }
                }
                if ($perNm > self::NOTHING) {
                    $largest = min($largest ?? INF, $held['capacity_nm'] / ($this->limit * $perNm));
                }
                $rows[] = $row;
            }
            $gears[] = ['name' => $gear, 'state' => $solved['state'], 'pressure_kpa' => $pressures[$gear], 'converterRatio' => $this->converter[$gear], 'elements' => $rows] + ($solved['ratio'] === null ? [] : ['ratio' => $solved['ratio']]);
        }

        return ['gears' => $gears, 'weakest' => $weakest, 'largest' => $largest, 'holds' => $weakest === null || $weakest['margin'] >= $this->limit, 'unknown' => $unknown];
    }

    /**
     * One number for all gears, or an object gear => number.
     *
     * @param  list<string>  $gears
     * @return array<string, float>
     */
    private static function byGear(Input $in, string $field, array $gears, ?float $default): array
    {
        $value = $default === null ? $in->at($field) : $in->optional($field);
        if ($value === null) {
            return array_fill_keys($gears, (float) $default);
        }
        if (! $value->raw() instanceof \stdClass) {
            return array_fill_keys($gears, $value->asNumber(min: 0.0));
        }
        foreach ($value->asMap() as $gear => $given) {
            in_array((string) $gear, $gears, true) || throw $given->fail('unknown-gear', "There is no gear \"$gear\" in the chart.");
        }
        $out = [];
        foreach ($gears as $gear) {
            $out[$gear] = $value->has($gear) || $default === null ? $value->number($gear, min: 0.0) : $default;
        }

        return $out;
    }
}
