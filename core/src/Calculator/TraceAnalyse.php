<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Dyno\Commands;
use Yard\Core\Dyno\Recording;
use Yard\Core\Dyno\TraceAnalysis;
use Yard\Core\Input;

/** trace.analyse: gears, shifts, lock-up, pressure and temperature of a recorded test run. */
final class TraceAnalyse implements Calculator
{
    private const CHANNELS = ['input_rpm', 'output_rpm', 'turbine_rpm', 'line_kpa', 'temp_degc'];

    public function calculate(Input $in): array
    {
        $rate = $in->number('rate_hz', above: 0.0, max: 1e6);
        $given = $in->at('channels');
        $channels = [];
        foreach (self::CHANNELS as $name) {
            if ($given->optional($name) !== null) {
                $channels[$name] = $given->numbers($name);
            }
        }
        $run = $in->within(static fn (): Recording => Recording::of($rate, $channels));
        $ratios = [];
        foreach ($in->map('ratios') as $gear => $ratio) {
            $ratios[$gear] = $ratio->asNumber();
            if (abs($ratios[$gear]) < 1e-6) {
                throw $ratio->fail('range', 'A gear ratio cannot be 0.');
            }
        }

        return (new TraceAnalysis($run, $ratios, Commands::of(self::steps($in), $run->seconds())))->report();
    }

    /** @return list<array{t: float, gear?: string, lockup?: string}> */
    private static function steps(Input $in): array
    {
        $steps = [];
        $before = -INF;
        foreach ($in->optional('commands')?->asList() ?? [] as $item) {
            $t = $item->number('t');
            if ($t < $before) {
                throw $item->at('t')->fail('order', 'The commands must be in the order of time.');
            }
            $before = $t;
            $steps[] = ['t' => $t] +
                ($item->has('gear') ? ['gear' => $item->string('gear')] : []) +
                ($item->has('lockup') ? ['lockup' => $item->choice('lockup', ['on', 'off'])] : []);
        }

        return $steps;
    }
}
