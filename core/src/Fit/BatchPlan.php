<?php

declare(strict_types=1);

namespace Yard\Core\Fit;

/**
 * Which builds get which parts of one bin: first as many builds as can be, then as little deviation as can be with so
 * many. Depth first, cut by a Lagrangian bound: pieces of scarce parts get a price, so that every build can be judged
 * by itself, and what it could gain at most is never less than what any plan gains (M. L. Fisher, Management Science
 * 27, 1981, 1, from memory).
 *
 * @phpstan-import-type Choice from BatchBuild
 */
final class BatchPlan
{
    /** Places of the search looked at, at an effort of 1. */
    private const MOST_STEPS = 200_000;

    private readonly int $mostSteps;

    /** @var list<int> builds that can be filled, the ones with fewest ways first */
    private array $order;

    /** @var array<int, int> build => its choice */
    private array $plan = [];

    private bool $countIsBest = true;

    private bool $deviationIsBest = true;

    private int $countBound;

    private int $deviationBound = 0;

    /**
     * @param  list<BatchBuild>  $builds
     * @param  array<int, int>  $stock  of the scarce parts
     */
    public function __construct(private readonly array $builds, private readonly array $stock, float $effort)
    {
        $this->mostSteps = (int) round(self::MOST_STEPS * $effort);
        $this->order = array_keys(array_filter($builds, static fn (BatchBuild $b): bool => $b->choices !== []));
        usort($this->order, fn (int $a, int $b): int => count($builds[$a]->choices) <=> count($builds[$b]->choices));
        $this->countBound = count($builds);
        $this->mostBuilds();
        $this->leastDeviation();
    }

    /** @return array<int, Choice> build => how its parts are picked */
    public function assigned(): array
    {
        $out = [];
        foreach ($this->plan as $build => $choice) {
            $out[$build] = $this->builds[$build]->choices[$choice];
        }

        return $out;
    }

    public function isOptimal(): bool
    {
        return $this->countIsBest && $this->deviationIsBest;
    }

    /** @return array{int, int} builds and total deviation that no plan can beat */
    public function bound(): array
    {
        return $this->countIsBest ? [count($this->plan), $this->deviationBound] : [$this->countBound, 0];
    }

    private function mostBuilds(): void
    {
        $prices = BatchPrices::of($this->lists(false), $this->stock, null);
        $this->countBound = min(count($this->order), (int) floor($prices->bound + 1e-6));
        $search = new BatchSearch($this->lists(false), $this->stock, $prices, null, $this->mostSteps);
        $this->plan = $this->named($search->plan);
        $this->countIsBest = $this->isSpreadOut() &&
            ($search->complete || count($this->plan) === $this->countBound);
        if (! $this->isSpreadOut()) {
            $this->countBound = count($this->builds);
        }
    }

    /** With the number of builds found: a plan of the same number that lies nearer to what is aimed at. */
    private function leastDeviation(): void
    {
        $count = count($this->plan);
        $prices = BatchPrices::of($this->lists(true), $this->stock, $count);
        $this->deviationBound = (int) max(0.0, ceil($prices->worth * $count - $prices->bound - 1e-6));
        $search = new BatchSearch($this->lists(true), $this->stock, $prices, $count, $this->mostSteps);
        if (count($search->plan) === $count) {
            $this->plan = $this->named($search->plan);
        }
        $reached = array_sum(array_column($this->assigned(), 'deviation'));
        $this->deviationIsBest = $search->complete || $reached <= $this->deviationBound;
    }

    /** Whether every way of every build was looked at. */
    private function isSpreadOut(): bool
    {
        foreach ($this->builds as $build) {
            if (! $build->complete) {
                return false;
            }
        }

        return true;
    }

    /**
     * @return list<list<array{float, array<int, int>}>> for each build in order, of each choice what it costs and takes
     */
    private function lists(bool $withDeviation): array
    {
        return array_map(fn (int $b): array => array_map(
            static fn (array $c): array => [$withDeviation ? (float) $c['deviation'] : 0.0, $c['use']],
            $this->builds[$b]->choices,
        ), $this->order);
    }

    /**
     * @param  array<int, int>  $plan  place in the order => choice
     * @return array<int, int> build => choice
     */
    private function named(array $plan): array
    {
        $out = [];
        foreach ($plan as $k => $choice) {
            $out[$this->order[$k]] = $choice;
        }

        return $out;
    }
}
