<?php

declare(strict_types=1);

namespace Yard\Core\Fit;

/**
 * Depth-first search for the plan of most builds, or of least cost with a given number of them. The choices of a build
 * are tried in the order of what they gain at the prices; since what a place can still reach falls by just that much,
 * the first choice that cannot lead further ends its list.
 */
final class BatchSearch
{
    /** @var array<int, int> place in the order => choice */
    public array $plan = [];

    public bool $complete = true;

    /** @var list<list<array{float, int, int}>> gain, number and parts (as bits) of each choice, the largest gain first */
    private array $sorted = [];

    /** @var list<float> what the builds from the k-th on gain at most */
    private array $gains = [0.0];

    private int $steps = 0;

    private float $bestCost = INF;

    /** @var array<string, float> what was reached with the same builds decided, as many filled and the same left */
    private array $seen = [];

    /**
     * @param  list<list<array{float, array<int, int>}>>  $builds  of each choice what it costs and takes
     * @param  array<int, int>  $stock
     * @param  int|null  $count  builds to be filled; null: as many as can be
     */
    public function __construct(
        private readonly array $builds,
        array $stock,
        private readonly BatchPrices $prices,
        private readonly ?int $count,
        private readonly int $mostSteps,
    ) {
        foreach ($builds as $choices) {
            $sorted = [];
            foreach ($choices as $c => [$cost, $takes]) {
                $sorted[] = [$prices->gain($cost, $takes), $c, self::bits($takes)];
            }
            usort($sorted, static fn (array $a, array $b): int => $b[0] <=> $a[0]);
            $this->sorted[] = $sorted;
        }
        foreach (array_reverse($this->sorted) as $choices) {
            array_unshift($this->gains, $this->gains[0] + max(0.0, $choices[0][0] ?? 0.0));
        }
        $this->decide(0, $stock, $prices->charge($stock), 0.0, []);
    }

    /**
     * @param  array<int, int>  $left  pieces
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
        $gone = self::bits(array_filter($left, static fn (int $pieces): bool => $pieces === 0));
        $wanted = $this->wanted();
        foreach ($this->sorted[$k] as [$gain, $c, $parts]) {
            if ($reach + $gain < $wanted) {
                break;
            }
            if (($parts & $gone) !== 0) {
                continue;
            }
            [$own, $takes] = $this->builds[$k][$c];
            $after = $this->after($left, $takes);
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

    /**
     * @param  array<int, int>  $left
     * @param  array<int, int>  $takes
     * @return array<int, int>|null what is left then; null where it does not suffice
     */
    private function after(array $left, array $takes): ?array
    {
        foreach ($takes as $part => $pieces) {
            if (($left[$part] -= $pieces) < 0) {
                return null;
            }
        }

        return $left;
    }

    /** @param  array<int, int>  $parts  by number; only the first ones have a bit */
    private static function bits(array $parts): int
    {
        $bits = 0;
        foreach ($parts as $part => $_) {
            $bits |= $part < 62 ? 1 << $part : 0;
        }

        return $bits;
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
