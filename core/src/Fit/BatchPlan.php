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
 * @phpstan-import-type Sorted from BatchSearch
 * @phpstan-import-type Lists from BatchPrices
 */
final class BatchPlan
{
    /** Places of the search looked at, at an effort of 1. */
    private const MOST_STEPS = 12_000;

    /** Of these steps so many are spent on how many builds can be filled, where every choice is as good as another. */
    private const SHARE_OF_COUNTING = 1.5;

    /** Of these steps so many more go into dealing out anew: they are short, and find more. */
    private const SHARE_OF_DEALING = 3;

    private readonly int $mostSteps;

    private readonly PieceCounts $pieces;

    /** @var list<int> builds that can be filled, the ones with fewest ways first */
    private array $order;

    /** @var array<int, int> place in the order => choice */
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
        $this->pieces = new PieceCounts(count($stock));
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
        foreach ($this->plan as $place => $choice) {
            $build = $this->order[$place];
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
        $lists = $this->lists(false);
        $prices = BatchPrices::of($lists, $this->stock, null);
        $this->countBound = min(count($this->order), (int) floor($prices->bound + 1e-6));
        $steps = (int) ceil(self::SHARE_OF_COUNTING * $this->mostSteps);
        $sorted = $this->sorted($lists, $prices);
        $search = new BatchSearch($sorted, $this->pieces, $this->stock, $prices, null, $steps);
        $this->plan = $search->plan;
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
        $lists = $this->lists(true);
        $prices = BatchPrices::of($lists, $this->stock, $count);
        $this->deviationBound = (int) max(0.0, ceil($prices->worth * $count - $prices->bound - 1e-6));
        $sorted = $this->sorted($lists, $prices);
        $dealer = new BatchDealer($this->pieces, $this->stock);
        $steps = self::SHARE_OF_DEALING * $this->mostSteps;
        $this->plan = $dealer->deal($this->plan, $lists, $sorted, $prices, $steps);
        $reached = (float) $this->reached();
        $search = new BatchSearch($sorted, $this->pieces, $this->stock, $prices, $count, $this->mostSteps, $reached);
        if (count($search->plan) === $count) {
            $this->plan = $search->plan;
        }
        $this->deviationIsBest = $search->complete || $this->reached() <= $this->deviationBound;
    }

    private function reached(): int
    {
        return (int) array_sum(array_column($this->assigned(), 'deviation'));
    }

    /**
     * @param  Lists  $lists
     * @return list<Sorted>
     */
    private function sorted(array $lists, BatchPrices $prices): array
    {
        return array_map(fn (array $c): array => BatchSearch::sorted($c, $this->pieces, $prices), $lists);
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
     * @return Lists for each build in order, of each choice what it costs and takes
     */
    private function lists(bool $withDeviation): array
    {
        return array_map(fn (int $b): array => array_map(
            static fn (array $c): array => [$withDeviation ? (float) $c['deviation'] : 0.0, $c['use']],
            $this->builds[$b]->choices,
        ), $this->order);
    }
}
