<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Fit\Bin;
use Yard\Core\Fit\StackUp;
use Yard\Core\Input;

/** fit.batch: one bin of selective parts shared out so that most builds land in their windows. */
final class FitBatch implements Calculator
{
    private const MOST_BUILDS = 100;

    public function calculate(Input $in): array
    {
        $stock = [];
        foreach ($in->at('stock')->asMap() as $part => $pieces) {
            $stock[(string) $part] = $pieces->asInteger(0);
        }
        $stacks = self::stacks($in);
        $bin = Bin::share($stacks, $stock, $in->numberOr('effort', 1.0, above: 0.0, max: 100.0));

        return [
            'assigned' => $bin->assigned(),
            'totalDeviation' => $bin->totalDeviation(),
            'builds' => array_map(static fn (int $b): array => self::build($bin->of($b)), array_keys($stacks)),
            'optimal' => $bin->optimal,
            'bound' => $bin->bound(),
        ];
    }

    /** @return list<StackUp> */
    private static function stacks(Input $in): array
    {
        $stacks = $thickness = [];
        $unit = null;
        foreach ($in->list('builds', 1) as $build) {
            $unit ??= $build->choice('unit', StackUp::UNITS);
            if ($build->string('unit') !== $unit) {
                throw $build->at('unit')->fail('unit', "All builds of one bin are in one unit, the first is in $unit.");
            }
            self::mustAgree($build, $thickness);
            $stack = FitStack::stack($build);
            $build->within(static fn (): array => $stack->window->scaled($stack->places()));
            $stacks[] = $stack;
        }
        if (count($stacks) > self::MOST_BUILDS) {
            $most = self::MOST_BUILDS;
            throw $in->at('builds')->fail('too-many', "No more than $most builds can share one bin.");
        }

        return $stacks;
    }

    /**
     * A part has one thickness in all builds, and its pieces are counted in the bin only.
     *
     * @param  array<string, float>  $thickness
     */
    private static function mustAgree(Input $build, array &$thickness): void
    {
        foreach ($build->list('slots') as $slot) {
            foreach ($slot->list('options') as $option) {
                if ($option->has('stock')) {
                    throw $option->at('stock')->fail('stock', 'The pieces are counted in the bin, under "stock".');
                }
                $part = $option->name('part');
                $own = $option->number('thickness', min: 0.0);
                if (($thickness[$part] ??= $own) !== $own) {
                    throw $option
                        ->at('thickness')
                        ->fail('conflict', "The part \"$part\" has two different thicknesses.");
                }
            }
        }
    }

    /**
     * @param  array{clearance: float, deviation: float, picks: list<array<string, mixed>>}|null  $given
     * @return array<string, mixed>
     */
    private static function build(?array $given): array
    {
        return $given === null ? ['feasible' => false, 'picks' => []] : ['feasible' => true] + $given;
    }
}
