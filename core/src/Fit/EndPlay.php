<?php

declare(strict_types=1);

namespace Yard\Core\Fit;

use Yard\Core\Calculator;
use Yard\Core\Calculators;
use Yard\Core\Decimal;
use Yard\Core\Input;

/**
 * Which selective thrust washer brings the end play into its window: new washer = fitted washer + (measured play -
 * wanted play) (common practice). It is a stack-up with one slot: play = measured + fitted - washer.
 */
final class EndPlay implements Calculator
{
    public function calculate(Input $in): array
    {
        $unit = $in->choice('unit', Stack::UNITS);
        $measured = $in->at('measured')->asDecimal();
        $fitted = $in->at('fitted')->asDecimal(0.0);
        $window = $in->at('window');
        [$min, $max] = [$window->number('min'), $window->number('max')];
        $places = max($measured->places, $fitted->places);
        $options = [];
        foreach ($in->list('options', 1) as $option) {
            $options[] =
                ['part' => $option->name('part'), 'thickness' => $option->number('thickness', min: 0.0)] +
                ($option->has('stock') ? ['stock' => $option->integer('stock', 0)] : []) +
                ($option->has('cost') ? ['cost' => $option->number('cost', min: 0.0)] : []);
        }
        $target = $in->has('target') ? ['target' => $in->number('target')] : [];
        $space = $measured->scaled($places) + $fitted->scaled($places);
        $stack = Calculators::call(
            'fit.stack',
            [
                'unit' => $unit,
                'depth' => Decimal::unscale($space, $places),
                'fixed' => [],
                'slots' => [['name' => 'washer', 'pick' => 1, 'options' => $options]],
                'window' => ['min' => $min, 'max' => $max],
            ] + $target,
        );

        $wanted = $in->has('target')
            ? $in->at('target')->asDecimal()
            : Decimal::ofFloat(round(($min + $max) / 2.0, 12));
        $places = max($places, $wanted->places);
        $out = [
            'feasible' => $stack['feasible'],
            'needed' => Decimal::unscale(
                $measured->scaled($places) + $fitted->scaled($places) - $wanted->scaled($places),
                $places,
            ),
        ];
        $thickness = array_column($options, 'thickness', 'part');
        foreach (['reason', 'best', 'nearest'] as $key) {
            if (isset($stack[$key])) {
                $out[$key] = is_array($stack[$key]) ? self::washer($stack[$key], $thickness) : $stack[$key];
            }
        }
        /** @var list<array<string, mixed>> $alternatives */
        $alternatives = $stack['alternatives'];
        $out['alternatives'] = array_map(static fn (array $a): array => self::washer($a, $thickness), $alternatives);

        return $out;
    }

    /**
     * @param  array<mixed>  $choice
     * @param  array<string, float>  $thickness
     * @return array<string, mixed>
     */
    private static function washer(array $choice, array $thickness): array
    {
        /**
         * @var array{clearance: float, deviation: float, picks: array{array{part: string}}, shortBy?: float} $choice
         */
        $part = $choice['picks'][0]['part'];

        return [
            'part' => $part,
            'thickness' => $thickness[$part],
            'play' => $choice['clearance'],
            'deviation' => $choice['deviation'],
        ] + (isset($choice['shortBy']) ? ['shortBy' => $choice['shortBy']] : []);
    }
}
