<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Decimal;
use Yard\Core\Fit\BatchBuild;
use Yard\Core\Fit\BatchPlan;
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
        $places = max([1, ...array_map(static fn (StackUp $s): int => $s->places(), $stacks)]);
        $scarce = self::scarce($stacks, $stock);
        $builds = array_map(
            static fn (StackUp $s): BatchBuild => new BatchBuild($s, $stock, $scarce, $places),
            $stacks,
        );
        $left = [];
        foreach ($scarce as $part => $number) {
            $left[$number] = $stock[$part];
        }
        $plan = new BatchPlan($builds, $left, $in->numberOr('effort', 1.0, above: 0.0, max: 100.0));
        $assigned = $plan->assigned();
        $reached = [count($assigned), array_sum(array_column($assigned, 'deviation'))];
        $bound = $plan->isOptimal() ? $reached : $plan->bound();
        $shown = static fn (int $assigned, int $deviation): array => [
            'assigned' => $assigned,
            'totalDeviation' => Decimal::unscale($deviation, $places),
        ];

        return $shown(...$reached) + [
            'builds' => array_map(
                static fn (int $b): array => self::build($stacks[$b], $assigned[$b] ?? null, $places),
                array_keys($stacks),
            ),
            'optimal' => $plan->isOptimal(),
            'bound' => $shown(...$bound),
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
     * Parts of which the builds together could want more than there are.
     *
     * @param  list<StackUp>  $stacks
     * @param  array<string, int>  $stock
     * @return array<string, int> part => its number
     */
    private static function scarce(array $stacks, array $stock): array
    {
        $wanted = [];
        foreach ($stacks as $stack) {
            foreach ($stack->slots as $slot) {
                foreach ($slot->options as $option) {
                    $wanted[$option->part] = ($wanted[$option->part] ?? 0) + $slot->pick;
                }
            }
        }
        $short = array_filter(
            $wanted,
            static fn (int $pieces, string|int $part): bool => isset($stock[$part]) && $pieces > $stock[$part],
            ARRAY_FILTER_USE_BOTH,
        );
        $out = [];
        foreach (array_keys($short) as $number => $part) {
            $out[(string) $part] = $number;
        }

        return $out;
    }

    /**
     * @param  array{clearance: int, deviation: int, use: array<int, int>, picks: array<string, int>}|null  $choice
     * @return array<string, mixed>
     */
    private static function build(StackUp $stack, ?array $choice, int $places): array
    {
        if ($choice === null) {
            return ['feasible' => false, 'picks' => []];
        }
        $picks = [];
        foreach ($choice['picks'] as $key => $count) {
            [$slot, $part] = explode("\n", $key, 2);
            $picks[] = ['slot' => $stack->slots[(int) $slot]->name, 'part' => $part, 'count' => $count];
        }

        return [
            'feasible' => true,
            'clearance' => Decimal::unscale($choice['clearance'], $places),
            'deviation' => Decimal::unscale($choice['deviation'], $places),
            'picks' => $picks,
        ];
    }
}
