<?php

declare(strict_types=1);

namespace Yard\Core\Power;

use Yard\Core\GearTrain\Train;
use Yard\Core\Hydraulics\Accumulator;
use Yard\Core\Input;

/** A solved train with its duty: solved once, evaluated for as many sets of hardware as a search tries. */
final class TrainDuty
{
    /** The lock-up clutch of the converter: it stands before the train and carries the engine's torque. */
    public const LOCKUP = 'lock-up';

    private const NOTHING = 1e-9;

    /**
     * @param array<string, array{state: string, ratio: ?float, speeds: array<string, float>,
     *     elementTorque: array<string, float>, slip: array<string, float>}>  $solved gear => solution
     * @param  array<string, list<string>>  $applied
     * @param  array<string, float>  $converterRatio  gear => torque ratio
     * @param  list<string>  $slipping  gears that pull away through the converter
     * @param  non-empty-list<array{opening: float, torque: float, boost: float}>  $throttle full throttle first; shares
     *     of torque and of boost
     * @param  array<string, float>  $speedLimits
     */
    private function __construct(
        public readonly array $solved,
        public readonly array $applied,
        public readonly Hardware $hardware,
        public readonly Engine $engine,
        private readonly array $converterRatio,
        private readonly array $slipping,
        private readonly array $throttle,
        public readonly array $speedLimits,
        public readonly float $inputTorque,
        public readonly float $inputSpeed,
        public readonly float $limit,
        public readonly ?ShiftSetting $shift,
        public readonly ?float $pressureLimit,
    ) {
    }

    public static function read(Input $in, Train $train): self
    {
        isset($train->elements[self::LOCKUP]) &&
            throw $in
                ->at('elements')
                ->fail(
                    'reserved',
                    'An element cannot be called "'.self::LOCKUP.'": that is the converter\'s own clutch.',
                );
        $solved = $applied = [];
        $locked = array_map(
            static fn (Input $gear): string => $gear->asString(),
            $in->optional('lockup')?->asList() ?? [],
        );
        foreach ($in->list('gears', 1) as $gear) {
            $name = $gear->name('name');
            if (isset($solved[$name])) {
                throw $gear->at('name')->fail('duplicate', "The gear \"$name\" is listed twice.");
            }
            $applied[$name] = [];
            foreach ($gear->list('applied') as $item) {
                isset($train->elements[$item->asString()]) ||
                    throw $item->fail(
                        'unknown-element',
                        "The element \"{$item->asString()}\" is not in the list of elements.",
                    );
                $applied[$name][] = $item->asString();
            }
            $solution = $train->solve($applied[$name]);
            if (in_array($name, $locked, true)) {
                $applied[$name][] = self::LOCKUP;
                $solution['elementTorque'][self::LOCKUP] = 1.0;
            }
            $solved[$name] = $solution;
        }
        $gears = array_map(strval(...), array_keys($solved));
        $speedLimits = [];
        foreach ($in->optional('speedLimits_rpm')?->asMap() ?? [] as $node => $limit) {
            isset(self::nodes($train)[$node]) ||
                throw $limit->fail('unknown-node', "No set and no element has a shaft called \"$node\".");
            $speedLimits[$node] = $limit->asNumber(above: 0.0);
        }
        $engine = $in->optional('engine');
        $engine = $engine === null ? null : Engine::read($engine);
        $torque = $engine?->peak() ?? $in->number('inputTorque_nm', min: 0.0);
        $converter = $in->optional('converter');
        self::gears($in->optional('lockup'), $gears);

        return new self(
            $solved,
            $applied,
            new Hardware(
                self::readCapacities($in->at('capacities'), $train),
                self::readAccumulators($in->optional('accumulators'), $train),
                self::byGear($in, 'pressure_kpa', $gears, null),
                $in->has('spring_kpa') ? $in->number('spring_kpa', min: 0.0) : 0.0,
                $converter === null ? null : Converter::read($converter),
            ),
            $engine ?? Engine::flat($torque > 0.0 ? $torque : 1.0),
            self::byGear($in, 'converterRatio', $gears, 1.0),
            self::gears($in->optional('slipping'), $gears),
            self::throttle($in),
            $speedLimits,
            $torque,
            $in->has('inputSpeed_rpm') ? $in->number('inputSpeed_rpm', min: 0.0) : 0.0,
            $in->has('limit') ? $in->number('limit', above: 0.0) : 1.0,
            $in->has('shift') ? ShiftSetting::read($in->at('shift')) : null,
            $in->has('pressureLimit_kpa') ? $in->number('pressureLimit_kpa', above: 0.0) : null,
        );
    }

    /**
     * @param  list<string>  $gears
     * @return list<string>
     */
    private static function gears(?Input $in, array $gears): array
    {
        return array_map(static function (Input $gear) use ($gears): string {
            in_array($gear->asString(), $gears, true) ||
                throw $gear->fail('unknown-gear', "There is no gear \"{$gear->asString()}\" in the chart.");

            return $gear->asString();
        }, $in?->asList() ?? []);
    }

    /** @return non-empty-list<array{opening: float, torque: float, boost: float}> */
    private static function throttle(Input $in): array
    {
        $points = [['opening' => 1.0, 'torque' => 1.0, 'boost' => 1.0]];
        foreach ($in->optional('throttle')?->asList() ?? [] as $point) {
            $points[] = [
                'opening' => $point->number('opening', min: 0.0, below: 1.0),
                'torque' => $point->number('torqueShare', above: 0.0, max: 1.0),
                'boost' => $point->number('boostShare', min: 0.0, max: 1.0),
            ];
        }

        return $points;
    }

    /** @return array<string, int> the shafts of a train, the case among them */
    public static function nodes(Train $train): array
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
            $id === self::LOCKUP ||
                isset($train->elements[$id]) ||
                throw $capacity->fail('unknown-element', "The element \"$id\" is not in the list of elements.");
            $out[$id] = Capacity::read($capacity, $nodes);
        }

        return $out;
    }

    /** @return array<string, Accumulator> element => the accumulator beside it */
    public static function readAccumulators(?Input $in, Train $train): array
    {
        $out = [];
        foreach ($in?->asMap() ?? [] as $id => $accumulator) {
            isset($train->elements[$id]) ||
                throw $accumulator->fail('unknown-element', "The element \"$id\" is not in the list of elements.");
            $out[$id] = Accumulator::read($accumulator);
            $out[$id]->hasFeed() ||
                throw $accumulator->at('feed')->fail('missing', 'An accumulator needs the orifice it fills through.');
        }

        return $out;
    }

    /**
     * @return array{gears: list<array{name: string, elements: list<array{element: string, demand_nm: float,
     *     capacity_nm: float, margin?: float, liningPressure_kpa?: float, liningLimit_kpa?: float,
     * rotation?: 'with'|'against'}>}>, weakest: array{gear: string, element: string, margin: float, demand_nm: float,
     *     capacity_nm: float, opening?: float}|null, byThrottle: list<array<string, mixed>>, largest: ?float,
     *     holds: bool, unknown: list<array{gear: string, element: string}>}
     */
    public function evaluate(Hardware $hardware): array
    {
        $gears = $unknown = [];
        $largest = null;
        /**
         * @var array<int, array{gear: string, element: string, margin: float, demand_nm: float, capacity_nm: float,
         *     opening?: float}> $weakest
         */
        $weakest = [];
        $behind = array_map(
            fn (array $point): float => $hardware->converter === null
                ? 1.0
                : $hardware->converter->highestTurbineTorque($this->engine->scaled($point['torque'])) /
                    ($this->engine->peak() * $point['torque']),
            $this->throttle,
        );
        foreach ($this->solved as $gear => $solved) {
            $gear = (string) $gear;
            $slips = $hardware->converter !== null && in_array($gear, $this->slipping, true);
            $rows = [];
            foreach ($this->applied[$gear] as $id) {
                $share = $solved['elementTorque'][$id] ?? null;
                $capacity = $hardware->capacities[$id] ?? null;
                if ($share === null || $capacity === null) {
                    // A split that statics does not determine, or an element nobody described, is named and not
                    // guessed.
                    $unknown[] = ['gear' => $gear, 'element' => $id];

                    continue;
                }
                $drum =
                    $capacity->oil === null
                        ? 0.0
                        : ($solved['speeds'][$capacity->oil['node']] ?? 0.0) * $this->inputSpeed;
                foreach ($this->throttle as $n => $point) {
                    $perNm =
                        abs($share) *
                        $point['torque'] *
                        ($id === self::LOCKUP ? 1.0 : ($slips ? $behind[$n] : $this->converterRatio[$gear]));
                    $demand = $perNm * $this->inputTorque;
                    $held = $capacity->at($hardware->pressure($gear, $point['boost']), $share, $drum);
                    $row = ['element' => $id, 'demand_nm' => $demand] + $held;
                    if ($demand > self::NOTHING) {
                        $row['margin'] = $held['capacity_nm'] / $demand;
                        if (! isset($weakest[$n]) || $row['margin'] < $weakest[$n]['margin']) {
                            $weakest[$n] =
                                [
                                    'gear' => $gear,
                                    'element' => $id,
                                    'margin' => $row['margin'],
                                    'demand_nm' => $demand,
                                    'capacity_nm' => $held['capacity_nm'],
                                ] + ($n === 0 ? [] : ['opening' => $point['opening']]);
                        }
                    }
                    if ($perNm > self::NOTHING) {
                        $allowed = $held['capacity_nm'] / ($this->limit * abs($share));
                        $largest = min(
                            $largest ?? INF,
                            $slips && $id !== self::LOCKUP
                                ? $this->engineFor(
                                    $allowed,
                                    $hardware->converter,
                                    ($largest ?? INF) * $point['torque'],
                                ) / $point['torque']
                                : ($allowed * abs($share)) / $perNm,
                        );
                    }
                    if ($n === 0) {
                        $rows[] = $row;
                    }
                }
            }
            $gears[] =
                [
                    'name' => $gear,
                    'state' => $solved['state'],
                    'pressure_kpa' => $hardware->pressures[$gear],
                    'converterRatio' => $slips ? $behind[0] : $this->converterRatio[$gear],
                    'elements' => $rows,
                ] + ($solved['ratio'] === null ? [] : ['ratio' => $solved['ratio']]);
        }
        usort($weakest, static fn (array $a, array $b): int => $a['margin'] <=> $b['margin']);

        return [
            'gears' => $gears,
            'weakest' => $weakest[0] ?? null,
            'byThrottle' => count($this->throttle) > 1 ? $weakest : [],
            'largest' => $largest,
            'holds' => $weakest === [] || $weakest[0]['margin'] >= $this->limit,
            'unknown' => $unknown,
        ];
    }

    /**
     * The peak of an engine of the same shape whose highest turbine torque is the given one. The stall speed moves with
     * the engine, so the torque at stall is no fixed share of the peak: found by trying, the turbine torque rises with
     * it.
     *
     * @param  float  $enough  a peak that is not worth passing: it is given back where even it stays below
     */
    private function engineFor(float $turbine, Converter $converter, float $enough): float
    {
        $peak = $this->engine->peak();
        $gives = fn (float $scale): float => $converter->highestTurbineTorque($this->engine->scaled($scale));
        if ($this->engine->lastSpeed() === 0.0) {
            return ($turbine / $gives(1.0)) * $peak; // a flat torque: everything grows alike
        }
        if (is_finite($enough) && $gives($enough / $peak) <= $turbine) {
            return $enough;
        }
        [$low, $below, $high, $above] = [0.0, -$turbine, 1.0, $gives(1.0) - $turbine];
        while ($above < 0.0 && $high < 1e6) {
            [$low, $below, $high] = [$high, $above, 2.0 * $high];
            $above = $gives($high) - $turbine;
        }
        // Between the two a straight line is tried, the end that stays twice counting half (the Illinois rule); in the
        // middle where that gains little.
        for ($n = 0, $side = 0; $n < 100 && $high - $low > 1e-12 * $high; $n++) {
            $try =
                $n % 4 === 3
                    ? ($low + $high) / 2.0
                    : max(
                        $low + 1e-13 * $high,
                        min($high - 1e-13 * $high, ($low * $above - $high * $below) / ($above - $below)),
                    );
            $value = $gives($try) - $turbine;
            if (abs($value) < 1e-13 * $turbine) {
                return $try * $peak;
            }
            if ($value < 0.0) {
                [$low, $below, $above, $side] = [$try, $value, $side < 0 ? $above / 2.0 : $above, -1];
            } else {
                [$high, $above, $below, $side] = [$try, $value, $side > 0 ? $below / 2.0 : $below, 1];
            }
        }

        return $high * $peak;
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
        if (! ($value->raw() instanceof \stdClass)) {
            return array_fill_keys($gears, $value->asNumber(min: 0.0));
        }
        foreach ($value->asMap() as $gear => $given) {
            in_array((string) $gear, $gears, true) ||
                throw $given->fail('unknown-gear', "There is no gear \"$gear\" in the chart.");
        }
        $out = [];
        foreach ($gears as $gear) {
            $out[$gear] = $value->has($gear) || $default === null ? $value->number($gear, min: 0.0) : $default;
        }

        return $out;
    }
}
