<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Input;
use Yard\Core\Power\LaunchHold as Hold;

/** launch.hold: how long a converter may be held before something is too hot, and how long it must rest. */
final class LaunchHold implements Calculator
{
    public function calculate(Input $in): array
    {
        $hold = Hold::read($in);
        $limits = [];
        $lowest = INF;
        foreach ($in->list('limits', 1) as $limit) {
            $max = $limit->number('max_degc', above: -273.15);
            $limits[] = ['name' => $limit->name('name'), 'max' => $max];
            $lowest = min($lowest, $max);
        }
        $given = static fn (string $field, ?float $value): array => $value === null ? [] : [$field => $value];
        $to = $in->numberIf('coolTo_degc', above: -273.15);
        $cool = $to === null ? null : $hold->coolDown($lowest, $to);
        $often = $to === null ? null : $hold->perHour($lowest, $to);

        return ['heat_w' => $hold->heat] +
            $given('timeConstant_s', $hold->timeConstant()) +
            $given('steady_degc', $hold->steady()) +
            ['secondsTo' => array_map(
                static fn (array $l): array => ['name' => $l['name']] + $given('seconds', $hold->secondsTo($l['max'])),
                $limits,
            )] +
            $given('coolDown_s', $cool) +
            $given('perHour', $often);
    }
}
