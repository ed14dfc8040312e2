<?php

declare(strict_types=1);

namespace Yard\Core\Fit;

/**
 * Prices of the pieces of scarce parts: dearer what builds that each look at themselves would take too much of, cheaper
 * what they would leave (subgradient steps after Polyak). At any prices the sum of what the builds gain and of what the
 * bin is worth is a true bound.
 *
 * @phpstan-type Lists list<list<array{float, array<int, int>}>>
 */
final readonly class BatchPrices
{
    /** Choices looked at while prices are sought. */
    private const MOST_LOOKS = 250_000;

    private const ROUNDS = 250;

    /** Every so many rounds all choices are looked at: only then is the bound a true one. */
    private const ALL_EVERY = 10;

    /** Choices of a build looked at in between, the ones that gained most the last time. */
    private const FOREMOST = 40;

    /**
     * @param  array<int, float>  $prices  of a piece of each part
     * @param  float  $worth  of a build that is filled
     */
    private function __construct(public array $prices, public float $worth, public float $bound)
    {
    }

    /**
     * @param  Lists  $builds  of each choice what it costs and takes
     * @param  array<int, int>  $stock
     * @param  int|null  $count  so many builds are to be filled, and cost counts; null: as many as can be
     */
    public static function of(array $builds, array $stock, ?int $count): self
    {
        $prices = array_fill_keys(array_keys($stock), 0.0);
        $worth = $count === null ? 1.0 : self::worthAtFirst($builds);
        $best = [INF, $prices, $worth, 0.0];
        $lowest = INF;
        $theta = 1.0;
        $looks = max(1, array_sum(array_map(count(...), $builds)));
        $rounds = (int) min(self::ROUNDS, self::ALL_EVERY * ceil(self::MOST_LOOKS / $looks));
        $foremost = $builds;
        for ($round = 0; $round < $rounds; $round++) {
            $isFull = $round % self::ALL_EVERY === 0;
            $foremost = $isFull ? self::foremost($builds, $prices, $worth) : $foremost;
            [$bound, $slack, $filled] = self::relaxed($foremost, $stock, $prices, $worth);
            // With a number given the bound is on the cost: cost is at least worth x number less this.
            $gap = $bound - $worth * ($count ?? 0);
            if ($isFull && $gap < $best[0] - 1e-9) {
                $best = [$gap, $prices, $worth, $bound];
            }
            $theta *= $gap < $lowest - 1e-9 ? 1.0 : 0.93;
            $lowest = min($lowest, $gap);
            $missing = ($count ?? $filled) - $filled;
            $norm = array_sum(array_map(static fn (int $s): int => $s * $s, $slack)) + $missing * $missing;
            if ($norm === 0) {
                break;
            }
            $step = ($theta * max(abs($gap), 1.0)) / $norm;
            foreach ($slack as $part => $left) {
                $prices[$part] = max(0.0, $prices[$part] - $step * $left);
            }
            $worth = max(0.0, $worth + $step * $missing);
        }
        [, $prices, $worth, $bound] = $best;

        return new self($prices, $worth, $bound);
    }

    /**
     * Of each build the choices that gain most at these prices.
     *
     * @param  Lists  $builds
     * @param  array<int, float>  $prices
     * @return Lists
     */
    private static function foremost(array $builds, array $prices, float $worth): array
    {
        $at = new self($prices, $worth, 0.0);
        $out = [];
        foreach ($builds as $choices) {
            $gains = array_map(static fn (array $c): float => $at->gain($c[0], $c[1]), $choices);
            arsort($gains);
            $first = array_slice(array_keys($gains), 0, self::FOREMOST);
            $out[] = array_map(static fn (int $c): array => $choices[$c], $first);
        }

        return $out;
    }

    /** @param  Lists  $builds */
    private static function worthAtFirst(array $builds): float
    {
        $costs = array_map(static fn (array $choices): float => min(array_column($choices, 0) ?: [0.0]), $builds);

        return 1.0 + max([0.0, ...$costs]);
    }

    /**
     * Every build for itself at these prices.
     *
     * @param  Lists  $builds
     * @param  array<int, int>  $stock
     * @param  array<int, float>  $prices
     * @return array{float, array<int, int>, int} bound, pieces left over (below 0: taken too often), builds filled
     */
    private static function relaxed(array $builds, array $stock, array $prices, float $worth): array
    {
        $bound = 0.0;
        foreach ($stock as $part => $pieces) {
            $bound += $prices[$part] * $pieces;
        }
        $filled = 0;
        foreach ($builds as $choices) {
            [$most, $use] = [0.0, null];
            foreach ($choices as [$cost, $takes]) {
                $gain = $worth - $cost;
                foreach ($takes as $part => $count) {
                    $gain -= $prices[$part] * $count;
                }
                if ($gain > $most) {
                    [$most, $use] = [$gain, $takes];
                }
            }
            $bound += $most;
            $filled += $use === null ? 0 : 1;
            foreach ($use ?? [] as $part => $count) {
                $stock[$part] -= $count;
            }
        }

        return [$bound, $stock, $filled];
    }

    /**
     * What a choice gains at these prices.
     *
     * @param  array<int, int>  $takes
     */
    public function gain(float $cost, array $takes): float
    {
        $gain = $this->worth - $cost;
        foreach ($takes as $part => $count) {
            $gain -= $this->prices[$part] * $count;
        }

        return $gain;
    }

    /** @param  array<int, int>  $left */
    public function charge(array $left): float
    {
        $sum = 0.0;
        foreach ($left as $part => $pieces) {
            $sum += $this->prices[$part] * $pieces;
        }

        return $sum;
    }
}
