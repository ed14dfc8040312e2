<?php

declare(strict_types=1);

namespace Yard\Core\Fit;

/**
 * Depth-first search for the plan of most builds, or of least cost with a given number of them. The choices of a build
 * are tried in the order of what they gain at the prices; since what a place can still reach falls by just that much,
 * the first choice that cannot lead further ends its list.
 *
 * A sorted choice is its gain, number, cost and what it takes, packed; the largest gain first.
 *
 * @phpstan-type Sorted list<array{float, int, float, array<int, int>}>
 */
final class BatchSearch
{
    /** @var array<int, int> place in the order => choice */
    public array $plan = [];

    public bool $complete = true;

    /** @var list<float> what the builds from the k-th on gain at most */
    private array $gains = [0.0];

    private int $steps = 0;

    private float $bestCost = INF;

    /** @var array<string, float> what was reached with the same builds decided, as many filled and the same left */
    private array $seen = [];

    /**
     * @param  list<Sorted>  $builds  the choices of each, as sorted() gives them
     * @param  array<int, int>  $stock
     * @param  int|null  $count  builds to be filled; null: as many as can be
     * @param  float  $below  only a plan that costs less is looked for
     */
    public function __construct(
        private readonly array $builds,
        private readonly PieceCounts $pieces,
        array $stock,
        private readonly BatchPrices $prices,
        private readonly ?int $count,
        private readonly int $mostSteps,
        float $below = INF,
    ) {
        $this->bestCost = $below;
        foreach (array_reverse($builds) as $choices) {
            array_unshift($this->gains, $this->gains[0] + max(0.0, $choices[0][0] ?? 0.0));
        }
        $this->decide(0, $pieces->packed($stock), $prices->charge($stock), 0.0, []);
    }

    /**
     * The choices of one build in the order in which they are tried.
     *
     * @param  list<array{float, array<int, int>}>  $choices  what each costs and takes
     * @return Sorted
     */
    public static function sorted(array $choices, PieceCounts $pieces, BatchPrices $prices): array
    {
        $sorted = [];
        foreach ($choices as $c => [$cost, $takes]) {
            $sorted[] = [$prices->gain($cost, $takes), $c, $cost, $pieces->packed($takes)];
        }
        usort($sorted, static fn (array $a, array $b): int => $b[0] <=> $a[0]);

        return $sorted;
    }

    public function steps(): int
    {
        return $this->steps;
    }

    /**
     * @param  array<int, int>  $left  pieces, packed
     * @param  float  $charge  what the pieces left are worth
     * @param  array<int, int>  $plan
     */
    private function decide(int $k, array $left, float $charge, float $cost, array $plan): void
    {
        $filled = count($plan);
        $this->keep($plan, $cost);
        if (! isset($this->builds[$k]) || $this->wasBetter($k, $left, $filled, $cost)) {
            return;
        }
        if (++$this->steps > $this->mostSteps) {
            $this->complete = false;

            return;
        }
        $reach = $this->prices->worth * $filled - $cost + $charge + $this->gains[$k + 1];
        $wanted = $this->wanted();
        foreach ($this->builds[$k] as [$gain, $c, $own, $takes]) {
            if ($reach + $gain < $wanted) {
                break;
            }
            $after = $this->pieces->left($left, $takes);
            if ($after !== null) {
                $worth = $charge - ($this->prices->worth - $own - $gain);
                $this->decide($k + 1, $after, $worth, $cost + $own, $plan + [$k => $c]);
                $wanted = $this->wanted();
            }
        }
        if ($reach >= $this->wanted() && $this->canStillFill($k + 1, $filled)) {
            $this->decide($k + 1, $left, $charge, $cost, $plan);
        }
    }

    /** @param  array<int, int>  $plan */
    private function keep(array $plan, float $cost): void
    {
        $better = $this->count === null
            ? count($plan) > count($this->plan)
            : count($plan) === $this->count && $cost < $this->bestCost;
        if ($better) {
            [$this->plan, $this->bestCost] = [$plan, $cost];
        }
    }

    /** What a place must be able to reach to be worth a look: a build more, or a unit of cost less. */
    private function wanted(): float
    {
        if ($this->count === null) {
            return count($this->plan) + 1 - 1e-6;
        }

        return $this->prices->worth * $this->count - $this->bestCost + 1 - 1e-6;
    }

    private function canStillFill(int $k, int $filled): bool
    {
        return $this->count === null || $filled + count($this->builds) - $k >= $this->count;
    }

    /** @param  array<int, int>  $left */
    private function wasBetter(int $k, array $left, int $filled, float $cost): bool
    {
        $key = "$k:$filled:".implode(',', $left);
        if (($this->seen[$key] ?? INF) <= $cost) {
            return true;
        }
        $this->seen[$key] = $cost;

        return false;
    }
}
