<?php

declare(strict_types=1);

namespace Yard\Core\Fit;

use Yard\Core\BadInput;
use Yard\Core\Decimal;

/**
 * Which selective thrust washer brings the end play into its window: new washer = fitted washer + (measured play -
 * wanted play) (common practice). It is a stack-up with one slot: play = measured + fitted - washer.
 */
final readonly class WasherChoice
{
    /** @param  list<SelectivePart>  $options */
    public function __construct(
        private Decimal $measured,
        private Decimal $fitted,
        private array $options,
        private Window $window,
    ) {
    }

    /**
     * @return array<string, mixed> as endplay.select answers
     *
     * @throws BadInput as the stack-up throws
     */
    public function solve(): array
    {
        $places = max($this->measured->places, $this->fitted->places);
        $space = $this->measured->scaled($places) + $this->fitted->scaled($places);
        $depth = Decimal::ofFloat(Decimal::unscale($space, $places));
        $stack = (new StackUp($depth, [], [new Slot('washer', 1, $this->options)], $this->window))->solve();
        $out = ['feasible' => $stack['feasible'], 'needed' => $this->needed($places)];
        foreach (['reason', 'best', 'nearest'] as $key) {
            if (isset($stack[$key])) {
                $out[$key] = is_array($stack[$key]) ? $this->washer($stack[$key]) : $stack[$key];
            }
        }
        /** @var list<array<string, mixed>> $alternatives */
        $alternatives = $stack['alternatives'];

        return $out + ['alternatives' => array_map($this->washer(...), $alternatives)];
    }

    /** The thickness that would give exactly the wanted play. */
    private function needed(int $places): float
    {
        $wanted = $this->window->aim();
        $places = max($places, $wanted->places);

        return Decimal::unscale(
            $this->measured->scaled($places) + $this->fitted->scaled($places) - $wanted->scaled($places),
            $places,
        );
    }

    /**
     * @param  array<mixed>  $choice
     * @return array<string, mixed>
     */
    private function washer(array $choice): array
    {
        /**
         * @var array{clearance: float, deviation: float, picks: array{array{part: string}}, shortBy?: float} $choice
         */
        $part = $choice['picks'][0]['part'];
        $thickness = array_column($this->options, 'thickness', 'part')[$part];

        return [
            'part' => $part,
            'thickness' => $thickness->toFloat(),
            'play' => $choice['clearance'],
            'deviation' => $choice['deviation'],
        ] + (isset($choice['shortBy']) ? ['shortBy' => $choice['shortBy']] : []);
    }
}
