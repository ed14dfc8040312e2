<?php

declare(strict_types=1);

namespace Yard\Core\Dyno;

use Yard\Core\Calculator;
use Yard\Core\Input;

/** Gears, shifts, flare, tie-up, lock-up, pressure and temperature of a recorded test run. */
final class AnalyseTrace implements Calculator
{
    private const MOST_SAMPLES = 1_000_000;

    /** Below this output speed a ratio means nothing, rev/min. */
    private const STANDSTILL_RPM = 20.0;

    /** After lock-up is commanded the clutch is given this long to apply, seconds. */
    private const LOCKUP_SETTLE_S = 1.0;

    public function calculate(Input $in): array
    {
        $rate = $in->number('rate_hz', above: 0.0, max: 1e6);
        $channels = $this->readChannels($in->at('channels'));
        $nominal = [];
        foreach ($in->map('ratios') as $gear => $ratio) {
            $nominal[$gear] = $ratio->asNumber();
            if (abs($nominal[$gear]) < 1e-6) {
                throw $ratio->fail('range', 'A gear ratio cannot be 0.');
            }
        }
        [$commands, $lockup] = $this->readCommands($in, count($channels['output_rpm']) / $rate);

        $warnings = [];
        $dropouts = [];
        foreach (['input_rpm', 'output_rpm', 'turbine_rpm'] as $name) {
            if (isset($channels[$name])) {
                [$channels[$name], $found] = Signal::repairDropouts(
                    $channels[$name],
                    (int) max(1, 0.25 * $rate),
                    100.0,
                );
                foreach ($found as [$first, $last]) {
                    $dropouts[] = [
                        'channel' => $name,
                        'from_s' => $first / $rate,
                        'to_s' => $last / $rate,
                        'samples' => $last - $first + 1,
                    ];
                }
            }
        }
        /**
         * @var array{input_rpm: non-empty-list<float>, output_rpm: non-empty-list<float>,
         *     turbine_rpm?: non-empty-list<float>, line_kpa?: non-empty-list<float>,
         *     temp_degc?: non-empty-list<float>} $channels
         */
        $turbine = $channels['turbine_rpm'] ?? $channels['input_rpm'];
        if (! isset($channels['turbine_rpm'])) {
            $warnings[] = [
                'code' => 'ratio-from-input',
                'message' => 'No turbine speed was recorded: the ratios include the slip of the converter wherever it '
                    .'is '
                        .'unlocked.',
            ];
        }
        // Sensors that count teeth do not know the direction: then reverse shows up with a positive ratio.
        $unsigned = min($channels['output_rpm']) >= 0.0;
        $matched = $unsigned ? array_map(abs(...), $nominal) : $nominal;
        $ratio = array_map(
            static fn (float $i, float $o): ?float => abs($o) < self::STANDSTILL_RPM ? null : $i / $o,
            $turbine,
            $channels['output_rpm'],
        );
        $dwells = GearFinder::find($ratio, $matched, $rate);
        $meter = new ShiftMeter($turbine, $channels['output_rpm'], $ratio, $rate, $commands);

        $out = [
            'gears' => array_map(
                static fn (Dwell $d): array => [
                    'gear' => $d->gear,
                    'from_s' => $d->steadyFirst / $rate,
                    'to_s' => $d->steadyLast / $rate,
                    'ratioMean' => $d->ratio * ($unsigned && $nominal[$d->gear] < 0.0 ? -1.0 : 1.0),
                    'ratioErrorPct' => 100.0 * ($d->ratio / $matched[$d->gear] - 1.0),
                ],
                $dwells,
            ),
            'shifts' => $meter->shifts($dwells),
            'tieUps' => $meter->tieUpsInGear($dwells),
            'lockup' => isset($channels['turbine_rpm'])
                ? LockupMeter::measure($channels['input_rpm'], $channels['turbine_rpm'], $rate, $lockup)
                : null,
            'notReached' => $this->notReached($commands, $dwells, $ratio, $rate),
            'dropouts' => $dropouts,
            'warnings' => $warnings,
        ];
        if (isset($channels['line_kpa'])) {
            $out['pressure'] = $this->pressure($channels['line_kpa'], $dwells);
        }
        if (isset($channels['temp_degc'])) {
            $out['temperature'] = $this->temperature($channels['temp_degc'], $rate);
        }

        return $out;
    }

    /**
     * @return array{input_rpm: non-empty-list<float>, output_rpm: non-empty-list<float>,
     *     turbine_rpm?: non-empty-list<float>, line_kpa?: non-empty-list<float>, temp_degc?: non-empty-list<float>}
     */
    private function readChannels(Input $in): array
    {
        $channels = [];
        foreach (['input_rpm', 'output_rpm', 'turbine_rpm', 'line_kpa', 'temp_degc'] as $name) {
            if ($in->has($name) || $name === 'input_rpm' || $name === 'output_rpm') {
                $values = $in->numbers($name);
                $expected = count($channels['input_rpm'] ?? $values);
                if (count($values) !== $expected) {
                    throw $in
                        ->at($name)
                        ->fail(
                            'length',
                            "All channels must have the same number of samples: $name has ".
                                count($values).
                                ", input_rpm has $expected.",
                        );
                }
                if (count($values) < 3 || count($values) > self::MOST_SAMPLES) {
                    throw $in
                        ->at($name)
                        ->fail(
                            'length',
                            'A trace needs between 3 and '.
                                self::MOST_SAMPLES.
                                ' samples, not '.
                                count($values).
                                '.',
                        );
                }
                $channels[$name] = $values;
            }
        }

        /** @var array{input_rpm: non-empty-list<float>, output_rpm: non-empty-list<float>} $channels */
        return $channels;
    }

    /**
     * @return array{list<array{t: float, gear: string}>, list<array{float, float}>|null} gear commands, lock-up windows
     */
    private function readCommands(Input $in, float $duration): array
    {
        $gears = [];
        $windows = null;
        $on = null;
        $before = -INF;
        foreach ($in->optional('commands')?->asList() ?? [] as $item) {
            $t = $item->number('t');
            if ($t < $before) {
                throw $item->at('t')->fail('order', 'The commands must be in the order of time.');
            }
            $before = $t;
            if ($item->has('gear')) {
                $gears[] = ['t' => $t, 'gear' => $item->string('gear')];
            }
            if ($item->has('lockup')) {
                $windows ??= [];
                $isOn = $item->choice('lockup', ['on', 'off']) === 'on';
                if ($on !== null && ! $isOn) {
                    $windows[] = [$on + self::LOCKUP_SETTLE_S, $t];
                }
                $on = $isOn ? $on ?? $t : null;
            }
        }
        if ($on !== null) {
            $windows[] = [$on + self::LOCKUP_SETTLE_S, $duration];
        }

        return [$gears, $windows];
    }

    /**
     * Commanded gears the unit never settled in, with the ratio it ran at instead.
     *
     * @param  list<array{t: float, gear: string}>  $commands
     * @param  list<Dwell>  $dwells
     * @param  list<?float>  $ratio
     * @return list<array<string, mixed>>
     */
    private function notReached(array $commands, array $dwells, array $ratio, float $rate): array
    {
        $out = [];
        foreach ($commands as $i => ['t' => $t, 'gear' => $gear]) {
            $end = $commands[$i + 1]['t'] ?? count($ratio) / $rate;
            foreach ($dwells as $dwell) {
                if ($dwell->gear === $gear && $dwell->last / $rate > $t && $dwell->first / $rate < $end) {
                    continue 2;
                }
            }
            $last = array_values(
                array_filter(
                    array_slice($ratio, max(0, (int) (($end - 0.5) * $rate)), max(1, (int) (0.5 * $rate))),
                    is_float(...),
                ),
            );
            if ($gear !== 'N' && $gear !== 'P') {
                $out[] = ['gear' => $gear, 't' => $t] + ($last === [] ? [] : ['ratioMean' => Signal::median($last)]);
            }
        }

        return $out;
    }

    /**
     * @param  non-empty-list<float>  $line
     * @param  list<Dwell>  $dwells
     * @return array<string, mixed>
     */
    private function pressure(array $line, array $dwells): array
    {
        $byGear = [];
        foreach ($dwells as $dwell) {
            $slice = array_slice($line, $dwell->steadyFirst, $dwell->steadyLast - $dwell->steadyFirst + 1);
            $byGear[$dwell->gear] = [...$byGear[$dwell->gear] ?? [], ...$slice];
        }

        return [
            'min_kpa' => min($line),
            'max_kpa' => max($line),
            'mean_kpa' => Signal::mean($line),
            'byGear_kpa' => (object) array_map(static fn (array $v): float => Signal::mean($v ?: [0.0]), $byGear),
        ];
    }

    /**
     * @param  non-empty-list<float>  $temperature
     * @return array<string, float>
     */
    private function temperature(array $temperature, float $rate): array
    {
        $n = count($temperature);
        $middle = ($n - 1) / 2.0;
        $mean = Signal::mean($temperature);
        $sxy = $sxx = 0.0;
        foreach ($temperature as $k => $v) {
            $sxy += ($k - $middle) * ($v - $mean);
            $sxx += ($k - $middle) ** 2;
        }

        return [
            'start_degc' => $temperature[0],
            'end_degc' => $temperature[$n - 1],
            'max_degc' => max($temperature),
            'rise_per_min' => ($sxy / $sxx) * $rate * 60.0,
        ];
    }
}
