<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Hydraulics\Accumulator;
use Yard\Core\Input;

/**
 * The pressure window of an accumulator: force of its springs over the piston area at the start and end of the stroke,
 * the oil it takes up, and how long the feed orifice takes to fill it. Several builds are compared with the first one.
 */
final class AccumulatorWindow implements Calculator
{
    public function calculate(Input $in): array
    {
        $builds = array_map(self::build(...), $in->list('builds', 1));
        $changes = [];
        foreach (array_slice($builds, 1) as $build) {
            $changes[] =
                [
                    'from' => $builds[0]['name'],
                    'to' => $build['name'],
                    'start_kpa' => $build['start_kpa'] - $builds[0]['start_kpa'],
                    'end_kpa' => $build['end_kpa'] - $builds[0]['end_kpa'],
                    'volume_ml' => $build['volume_ml'] - $builds[0]['volume_ml'],
                ] +
                (isset($build['fill_s'], $builds[0]['fill_s'])
                    ? ['fill_s' => $build['fill_s'] - $builds[0]['fill_s']]
                    : []);
        }

        return ['builds' => $builds, 'changes' => $changes];
    }

    /**
     * @return array{name: string, area_mm2: float, start_kpa: float, end_kpa: float, volume_ml: float,
     *     startForce_n: float, endForce_n: float, curve: list<array{volume_ml: float, pressure_kpa: float}>,
     *     fills?: bool, fill_s?: float}
     */
    private static function build(Input $in): array
    {
        $a = Accumulator::read($in);
        $end = $a->end();
        $out = [
            'name' => $in->has('name') ? $in->name('name') : 'build',
            'area_mm2' => $a->area,
            'start_kpa' => $a->curve[0]['pressure_kpa'],
            'end_kpa' => $end['pressure_kpa'],
            'volume_ml' => $end['volume_ml'],
            'startForce_n' => $a->startForce,
            'endForce_n' => $a->endForce,
            'curve' => $a->curve,
        ];
        if (! $in->has('line_kpa')) {
            return $out;
        }
        $a->hasFeed() || throw $in->at('feed')->fail('missing', 'The time to fill needs the feed orifice.');
        $seconds = $a->fillTime($in->number('line_kpa', min: 0.0));

        return $out + ['fills' => $seconds !== null] + ($seconds === null ? [] : ['fill_s' => $seconds]);
    }
}
