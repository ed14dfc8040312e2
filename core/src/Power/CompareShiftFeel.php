<?php

declare(strict_types=1);

namespace Yard\Core\Power;

use Yard\Core\Calculator;
use Yard\Core\GearTrain\Train;
use Yard\Core\Hydraulics\Accumulator;
use Yard\Core\Input;

/** One upshift with one accumulator after another: how long it takes, what it jolts, what heat it leaves. */
final class CompareShiftFeel implements Calculator
{
    public function calculate(Input $in): array
    {
        $train = Train::read($in);
        $chart = self::chart($in, $train);
        [$from, $to] = array_map(
            static fn (string $field): array => $train->solve(
                $chart[$in->name($field)] ??
                    throw $in
                        ->at($field)
                        ->fail('unknown-gear', "There is no gear \"{$in->name($field)}\" in the chart."),
            ),
            ['from', 'to'],
        );
        if (
            $from['ratio'] === null ||
            $to['ratio'] === null ||
            $to['ratio'] <= 0.0 ||
            $from['ratio'] <= $to['ratio']
        ) {
            throw $in->at('to')->fail('upshift', 'The shift must go from one forward gear up to another.');
        }
        $element = $in->name('element');
        if (! isset($to['elementTorque'][$element], $from['slip'][$element])) {
            throw $in
                ->at('element')
                ->fail(
                    'on-coming',
                    "The element \"$element\" is not one that comes on in this shift with a torque of its own.",
                );
        }
        $nodes = TrainDuty::nodes($train);
        $capacity = Capacity::read($in->at('capacity'), $nodes);
        $engine = $in->number('inputTorque_nm', above: 0.0);
        $rpm = $in->number('inputSpeed_rpm', above: 0.0);
        $setting = ShiftSetting::untimed($in);
        $setting->inertia > 0.0 ||
            throw $in
                ->at('inputInertia_kgm2')
                ->fail('range', 'Without inertia at the input there is nothing to pull down.');
        $off = array_diff($chart[$in->name('from')], $chart[$in->name('to')]);
        $builds = [];
        foreach ($in->list('builds', 1) as $build) {
            $accumulator = Accumulator::read($build);
            $accumulator->hasFeed() ||
                throw $build->at('feed')->fail('missing', 'An accumulator needs the orifice it fills through.');
            $own = $build->optional('capacity');
            $pack = $own === null ? $capacity : Capacity::read($own, $nodes);
            $feel = ShiftFeel::of(
                $element,
                $pack,
                $accumulator,
                $from,
                $to,
                $build->number('line_kpa', above: 0.0),
                $engine,
                $rpm,
                $setting,
                self::letsGo($build, $train, $off),
            );
            $builds[] =
                ['name' => $build->name('name')] +
                ($feel ??
                    throw ($own ?? $in->at('capacity'))->fail(
                        'pressure',
                        'Pressure does not govern this element: there is no feel to compare.',
                    ));
        }

        return ['builds' => $builds, 'assumptions' => ShiftFeel::ASSUMPTIONS];
    }

    /** @param  array<int, string>  $off */
    private static function letsGo(Input $build, Train $train, array $off): ?float
    {
        if (! $build->has('letsGo_s')) {
            return null;
        }
        array_filter($off, static fn (string $id): bool => $train->elements[$id]->kind !== 'one-way') !== [] ||
            throw $build
                ->at('letsGo_s')
                ->fail(
                    'one-way',
                    'Nothing here can let go too early or too late: a one-way clutch lets go by itself.',
                );

        return $build->number('letsGo_s', min: 0.0);
    }

    /** @return array<string, list<string>> gear => what is applied in it */
    private static function chart(Input $in, Train $train): array
    {
        $out = [];
        foreach ($in->list('gears', 1) as $gear) {
            $out[$gear->name('name')] = array_map(static function (Input $item) use ($train): string {
                isset($train->elements[$item->asString()]) ||
                    throw $item->fail(
                        'unknown-element',
                        "The element \"{$item->asString()}\" is not in the list of elements.",
                    );

                return $item->asString();
            }, $gear->list('applied'));
        }

        return $out;
    }
}
