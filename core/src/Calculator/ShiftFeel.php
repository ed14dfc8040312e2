<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Drivetrain\ApplyChart;
use Yard\Core\Drivetrain\SolvedGear;
use Yard\Core\Hydraulics\Accumulator;
use Yard\Core\Input;
use Yard\Core\Power\Capacity;
use Yard\Core\Power\ShiftFeel as Feel;
use Yard\Core\Power\ShiftSetting;

/** shift.feel: one upshift with one accumulator after another: how long it takes, its jolt, the heat it leaves. */
final class ShiftFeel implements Calculator
{
    public function calculate(Input $in): array
    {
        $chart = ApplyChart::read($in, 1);
        [$from, $to, $element] = self::shift($in, $chart);
        $nodes = $chart->train->shafts();
        $capacity = Capacity::read($in->at('capacity'), $nodes);
        [$engine, $rpm] = [$in->number('inputTorque_nm', above: 0.0), $in->number('inputSpeed_rpm', above: 0.0)];
        $setting = ShiftSetting::untimed($in);
        $setting->inertia > 0.0 ||
            throw $in
                ->at('inputInertia_kgm2')
                ->fail('range', 'Without inertia at the input there is nothing to pull down.');
        $builds = [];
        foreach ($in->list('builds', 1) as $build) {
            $own = $build->optional('capacity');
            $feel = Feel::of(
                $element,
                $own === null ? $capacity : Capacity::read($own, $nodes),
                self::accumulator($build),
                $from,
                $to,
                $build->number('line_kpa', above: 0.0),
                $engine,
                $rpm,
                $setting,
                self::letsGo($build, $in, $chart),
            );
            $feel ??
                throw ($own ?? $in->at('capacity'))->fail(
                    'pressure',
                    'Pressure does not govern this element: there is no feel to compare.',
                );
            $builds[] = ['name' => $build->name('name')] + $feel;
        }

        return ['builds' => $builds, 'assumptions' => Feel::ASSUMPTIONS];
    }

    /** @return array{SolvedGear, SolvedGear, string} the gears, and the element that comes on */
    private static function shift(Input $in, ApplyChart $chart): array
    {
        [$from, $to] = [self::gear($in, 'from', $chart), self::gear($in, 'to', $chart)];
        if (! $from->isForward() || ! $to->isForward() || $from->ratio <= $to->ratio) {
            throw $in->at('to')->fail('upshift', 'The shift must go from one forward gear up to another.');
        }
        $element = $in->name('element');
        if (! isset($to->elementTorque[$element], $from->slip[$element])) {
            throw $in
                ->at('element')
                ->fail(
                    'on-coming',
                    "The element \"$element\" is not one that comes on in this shift with a torque of its own.",
                );
        }

        return [$from, $to, $element];
    }

    private static function gear(Input $in, string $field, ApplyChart $chart): SolvedGear
    {
        $name = $in->name($field);

        return $chart->solved()[$name] ??
            throw $in->at($field)->fail('unknown-gear', "There is no gear \"$name\" in the chart.");
    }

    private static function accumulator(Input $build): Accumulator
    {
        $accumulator = Accumulator::read($build);
        $accumulator->hasFeed() ||
            throw $build->at('feed')->fail('missing', 'An accumulator needs the orifice it fills through.');

        return $accumulator;
    }

    /** When the off-going element lets go; null where nobody says. */
    private static function letsGo(Input $build, Input $in, ApplyChart $chart): ?float
    {
        if (! $build->has('letsGo_s')) {
            return null;
        }
        $off = array_diff($chart->applied[$in->name('from')], $chart->applied[$in->name('to')]);
        foreach ($off as $id) {
            if ($chart->train->elements[$id]->kind !== 'one-way') {
                return $build->number('letsGo_s', min: 0.0);
            }
        }
        throw $build
            ->at('letsGo_s')
            ->fail(
                'one-way',
                'Nothing here can let go too early or too late: a one-way clutch lets go by itself.',
            );
    }
}
