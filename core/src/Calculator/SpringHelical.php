<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Hydraulics\Spring;
use Yard\Core\Input;

/** One helical spring, or nested ones ("springs") whose forces add where they touch. */
final class SpringHelical implements Calculator
{
    public function calculate(Input $in): array
    {
        $nested = $in->has('springs');
        $springs = $nested ? array_map(Spring::read(...), $in->list('springs', 1)) : [Spring::read($in)];
        $solid = max([0.0, ...array_map(static fn (Spring $s): float => $s->solid, $springs)]);
        $lengths = self::lengths($in, $solid) + ['solid' => $solid];
        $forces = $stress = [];
        foreach ($lengths as $name => $length) {
            $forces[$name] = array_sum(array_map(static fn (Spring $s): float => $s->force($length), $springs));
            $stress[$name] = max([
                0.0,
                ...array_map(static fn (Spring $s): float => $s->stress($s->force($length)), $springs),
            ]);
        }
        $out = [
            'rate_n_per_mm' => array_sum(array_map(static fn (Spring $s): float => $s->rate, $springs)),
            'solidLength_mm' => $solid,
            'forces' => $forces,
            'stress_mpa' => $stress,
        ];
        if (! $nested) {
            return $out + ['index' => $springs[0]->index(), 'wahl' => $springs[0]->wahl()];
        }

        return $out + [
            'springs' => array_map(
                static fn (Spring $s): array => [
                    'rate_n_per_mm' => $s->rate,
                    'index' => $s->index(),
                    'wahl' => $s->wahl(),
                    'solidLength_mm' => $s->solid,
                ],
                $springs,
            ),
            'rateSteps' => self::steps($springs),
        ];
    }

    /** @return array<string, float> mm, installed and compressed where they are given */
    private static function lengths(Input $in, float $solid): array
    {
        $lengths = [];
        foreach (['installed' => 'installedLength_mm', 'compressed' => 'compressedLength_mm'] as $name => $field) {
            $length = $in->optional($field);
            if ($length === null) {
                continue;
            }
            $lengths[$name] = $length->asNumber(above: 0.0);
            if ($lengths[$name] < $solid) {
                $least = Input::show(round($solid, 6));
                throw $length->fail('solid', "The length lies below the solid length of $least mm.");
            }
        }

        return $lengths;
    }

    /**
     * @param  list<Spring>  $springs
     * @return list<array{below_mm: float, rate_n_per_mm: float}> the rate in force below each free length,
     *     longest first
     */
    private static function steps(array $springs): array
    {
        usort($springs, static fn (Spring $a, Spring $b): int => $b->free <=> $a->free);
        $rate = 0.0;
        $steps = [];
        foreach ($springs as $spring) {
            $rate += $spring->rate;
            $steps[(string) $spring->free] = ['below_mm' => $spring->free, 'rate_n_per_mm' => $rate];
        }

        return array_values($steps);
    }
}
