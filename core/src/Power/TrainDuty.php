<?php

declare(strict_types=1);

namespace Yard\Core\Power;

use LogicException;
use WeakMap;
use Yard\Core\Drivetrain\ApplyChart;
use Yard\Core\Drivetrain\Train;
use Yard\Core\Hydraulics\Accumulator;
use Yard\Core\Input;

/** A solved train with its duty: solved once, evaluated for as many sets of hardware as a search tries. */
final class TrainDuty
{
    /** The lock-up clutch of the converter: it stands before the train and carries the engine's torque. */
    public const LOCKUP = 'lock-up';

    private const NOTHING = 1e-9;

    /** @var WeakMap<Converter, non-empty-list<float>> */
    private readonly WeakMap $ratios;

    /**
     * @param  list<string>  $locked  gears in which the lock-up clutch is on
     * @param  array<string, float>  $converterRatio  gear => torque ratio
     * @param  list<string>  $slipping  gears that pull away through the converter
     * @param  non-empty-list<array{opening: float, torque: float, boost: float}>  $throttle full throttle first; shares
     *     of torque and of boost
     * @param  array<string, float>  $speedLimits
     */
    private function __construct(
        public readonly ApplyChart $chart,
        private readonly array $locked,
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
        $this->ratios = new WeakMap;
    }

    public static function read(Input $in): self
    {
        $chart = ApplyChart::read($in, 1);
        $train = $chart->train;
        $gears = $chart->gears();
        isset($train->elements[self::LOCKUP]) &&
            throw $in
                ->at('elements')
                ->fail(
                    'reserved',
                    'An element cannot be called "'.self::LOCKUP.'": that is the converter\'s own clutch.',
                );
        $engine = $in->optional('engine');
        $engine = $engine === null ? null : Engine::read($engine);
        $torque = $engine?->peak() ?? $in->number('inputTorque_nm', min: 0.0);
        $converter = $in->optional('converter');

        return new self(
            $chart,
            self::gears($in->optional('lockup'), $gears),
            new Hardware(
                self::readCapacities($in->at('capacities'), $train),
                self::readAccumulators($in->optional('accumulators'), $train),
                self::byGear($in, 'pressure_kpa', $gears, null),
                $in->numberOr('spring_kpa', 0.0, min: 0.0),
                $converter === null ? null : Converter::read($converter),
            ),
            $engine ?? Engine::flat($torque > 0.0 ? $torque : 1.0),
            self::byGear($in, 'converterRatio', $gears, 1.0),
            self::gears($in->optional('slipping'), $gears),
            self::throttle($in),
            self::speedLimits($in->optional('speedLimits_rpm'), $train),
            $torque,
            $in->numberOr('inputSpeed_rpm', 0.0, min: 0.0),
            $in->numberOr('limit', 1.0, above: 0.0),
            $in->has('shift') ? ShiftSetting::read($in->at('shift')) : null,
            $in->numberIf('pressureLimit_kpa', above: 0.0),
        );
    }

    /** @return array<string, float> shaft => rev/min */
    private static function speedLimits(?Input $in, Train $train): array
    {
        $out = [];
        foreach ($in?->asMap() ?? [] as $node => $limit) {
            isset($train->shafts()[$node]) ||
                throw $limit->fail('unknown-node', "No set and no element has a shaft called \"$node\".");
            $out[$node] = $limit->asNumber(above: 0.0);
        }

        return $out;
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

    /** @return array<string, Capacity> */
    public static function readCapacities(?Input $in, Train $train): array
    {
        $nodes = $train->shafts();
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

    /** @return list<string> what carries torque in a gear, the lock-up clutch last */
    public function carrying(string $gear): array
    {
        return in_array($gear, $this->locked, true)
            ? [...$this->chart->applied[$gear], self::LOCKUP]
            : $this->chart->applied[$gear];
    }

    /** What each element holds and is asked in each gear, or in one of them, with the hardware given. */
    public function evaluate(Hardware $hardware, ?string $only = null): DutyReport
    {
        $report = $this->reportOn($hardware);
        $behind = $this->ratiosBehind($hardware->converter);
        foreach ($this->chart->solved() as $gear => $solved) {
            $gear = (string) $gear;
            if ($only !== null && $gear !== $only) {
                continue;
            }
            $slips = $hardware->converter !== null && in_array($gear, $this->slipping, true);
            $ratios = $slips ? $behind : array_fill(0, count($behind), $this->converterRatio[$gear]);
            $report->gear($gear, $solved, $hardware->pressures[$gear], $ratios[0]);
            foreach ($this->carrying($gear) as $id) {
                $share = $id === self::LOCKUP ? 1.0 : $solved->elementTorque[$id] ?? null;
                $capacity = $hardware->capacities[$id] ?? null;
                if ($share === null || $capacity === null) {
                    $report->unknown($gear, $id);
                } else {
                    $this->load($report, $hardware, $gear, $id, $share, $capacity, $ratios, $slips);
                }
            }
        }

        return $report;
    }

    private function reportOn(Hardware $hardware): DutyReport
    {
        $converter = $hardware->converter;

        return new DutyReport(
            $this->limit,
            fn (float $turbine, int $point, float $enough): float => $this->engineFor(
                $turbine,
                $converter ?? throw new LogicException('Nothing slips without a converter.'),
                $enough * $this->throttle[$point]['torque'],
            ) / $this->throttle[$point]['torque'],
        );
    }

    /** @return non-empty-list<float> torque behind a converter over the engine's peak, one a throttle opening */
    private function ratiosBehind(?Converter $converter): array
    {
        if ($converter === null) {
            return array_map(static fn (): float => 1.0, $this->throttle);
        }

        return $this->ratios[$converter] ??= array_map(
            fn (array $point): float => $converter->highestTurbineTorque($this->engine->scaled($point['torque'])) /
                ($this->engine->peak() * $point['torque']),
            $this->throttle,
        );
    }

    /**
     * One element in one gear at every throttle opening.
     *
     * @param  float  $share  of the torque behind the converter
     * @param  non-empty-list<float>  $ratios  of the converter, a throttle opening each
     * @param  bool  $slips  the gear pulls away through the converter
     */
    private function load(
        DutyReport $report,
        Hardware $hardware,
        string $gear,
        string $id,
        float $share,
        Capacity $capacity,
        array $ratios,
        bool $slips,
    ): void {
        $turns = $capacity->oil === null ? 0.0 : $this->chart->solved()[$gear]->speeds[$capacity->oil['node']] ?? 0.0;
        foreach ($this->throttle as $n => $point) {
            $perNm = abs($share) * $point['torque'] * ($id === self::LOCKUP ? 1.0 : $ratios[$n]);
            $held = $capacity->at(
                $hardware->pressure($gear, $point['boost']),
                $share,
                $turns * $this->inputSpeed,
            );
            $report->element($gear, $id, $perNm * $this->inputTorque, $held, $n, $point['opening']);
            if ($perNm > self::NOTHING) {
                $allowed = $held['capacity_nm'] / ($this->limit * abs($share));
                $slips && $id !== self::LOCKUP
                    ? $report->allowsBehind($n, $allowed)
                    : $report->allows(($allowed * abs($share)) / $perNm);
            }
        }
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
        if (! $value->isObject()) {
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
