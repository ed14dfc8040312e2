<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Dyno\Commands;
use Yard\Core\Dyno\Recording;
use Yard\Core\Dyno\Timeline;
use Yard\Core\Dyno\TraceAnalysis;
use Yard\Core\Input;

/** trace.analyse: gears, shifts, lock-up, pressure and temperature of a recorded test run. */
final class TraceAnalyse implements Calculator
{
    private const CHANNELS = ['input_rpm', 'output_rpm', 'turbine_rpm', 'line_kpa', 'temp_degc'];

    public function calculate(Input $in): array
    {
        $rate = $in->number('rate_hz', above: 0.0, max: 1e6);
        $channels = self::channels($in);
        $timeline = $in->at('channels')->optional('t_s') === null ? null : self::timeline($in, $channels, $rate);
        $placed = $timeline === null ? $channels : array_map($timeline->spread(...), $channels);
        $missing = $timeline?->missing() ?? [];
        $run = $in->within(static fn (): Recording => Recording::of($rate, $placed, $missing));
        $ratios = [];
        foreach ($in->map('ratios') as $gear => $ratio) {
            $ratios[$gear] = $ratio->asNumber();
            if (abs($ratios[$gear]) < 1e-6) {
                throw $ratio->fail('range', 'A gear ratio cannot be 0.');
            }
        }

        $commands = Commands::of(self::steps($in, $timeline), $run->seconds());
        $report = (new TraceAnalysis($run, $ratios, $commands))->report();

        return $timeline === null ? $report : $timeline->moved($report) + ['gaps' => $timeline->gaps];
    }

    /** @return array<string, list<float>> */
    private static function channels(Input $in): array
    {
        $channels = [];
        foreach (self::CHANNELS as $name) {
            if ($in->at('channels')->optional($name) !== null) {
                $channels[$name] = $in->at('channels')->numbers($name);
            }
        }

        return $channels;
    }

    /** @param  array<string, list<float>>  $channels */
    private static function timeline(Input $in, array $channels, float $rate): Timeline
    {
        $times = $in->at('channels')->numbers('t_s');
        foreach ($channels as $name => $values) {
            if (count($values) !== count($times)) {
                [$n, $t] = [count($values), count($times)];
                throw $in->at('channels')->at($name)->fail(
                    'length',
                    "All channels must have the same number of samples: $name has $n, t_s has $t.",
                );
            }
        }
        if ($times === []) {
            throw $in->at('channels')->at('t_s')->fail('length', 'There are no samples.');
        }

        return $in->within(static fn (): Timeline => Timeline::of($times, $rate));
    }

    /** @return list<array{t: float, gear?: string, lockup?: string}> */
    private static function steps(Input $in, ?Timeline $timeline): array
    {
        $steps = [];
        $before = -INF;
        foreach ($in->optional('commands')?->asList() ?? [] as $item) {
            $t = $item->number('t');
            if ($t < $before) {
                throw $item->at('t')->fail('order', 'The commands must be in the order of time.');
            }
            $before = $t;
            $steps[] = ['t' => $timeline?->onGrid($t) ?? $t] +
                ($item->has('gear') ? ['gear' => $item->string('gear')] : []) +
                ($item->has('lockup') ? ['lockup' => $item->choice('lockup', ['on', 'off'])] : []);
        }

        return $steps;
    }
}
