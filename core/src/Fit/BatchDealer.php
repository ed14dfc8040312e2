<?php

declare(strict_types=1);

namespace Yard\Core\Fit;

/**
 * Betters a plan of as many builds: a few at a time give back what they have and share it out again, as long as it
 * costs less.
 *
 * @phpstan-import-type Lists from BatchPrices
 * @phpstan-import-type Sorted from BatchSearch
 */
final readonly class BatchDealer
{
    /** Builds that are dealt out anew together. */
    private const AT_ONCE = 3;

    private const MOST_HANDFULS = 5_000;

    /** Places looked at for each handful. */
    private const STEPS_A_HANDFUL = 60;

    /** @param  array<int, int>  $stock */
    public function __construct(private PieceCounts $pieces, private array $stock)
    {
    }

    /**
     * @param  array<int, int>  $plan  place in the order => choice
     * @param  Lists  $lists
     * @param  list<Sorted>  $sorted
     * @return array<int, int>
     */
    public function deal(array $plan, array $lists, array $sorted, BatchPrices $prices, int $steps): array
    {
        $tried = 0;
        $handfuls = self::handfuls(count($lists));
        for ($k = 0; $steps > 0 && $tried < count($handfuls); $k = ($k + 1) % count($handfuls)) {
            $tried++;
            $places = $handfuls[$k];
            $before = array_intersect_key($plan, array_flip($places));
            $search = new BatchSearch(
                array_map(static fn (int $p): array => $sorted[$p], $places),
                $this->pieces,
                $this->leftBy(array_diff_key($plan, $before), $lists),
                $prices,
                count($before),
                min($steps, self::STEPS_A_HANDFUL),
                self::cost($before, $lists),
            );
            $steps -= max(1, $search->steps());
            if ($search->plan !== [] && count($search->plan) === count($before)) {
                $plan = array_diff_key($plan, $before);
                foreach ($search->plan as $n => $choice) {
                    $plan[$places[$n]] = $choice;
                }
                $tried = 0;
            }
        }

        return $plan;
    }

    /** @return list<non-empty-list<int>> every choice of so many places; of fewer where that is too many */
    private static function handfuls(int $places): array
    {
        $handfuls = $places === 0 ? [] : array_map(static fn (int $p): array => [$p], range(0, $places - 1));
        for ($n = 1; $n < self::AT_ONCE && count($handfuls) * ($places - $n) <= self::MOST_HANDFULS * ($n + 1); $n++) {
            $longer = [];
            foreach ($handfuls as $chosen) {
                for ($p = end($chosen) + 1; $p < $places; $p++) {
                    $longer[] = [...$chosen, $p];
                }
            }
            $handfuls = $longer === [] ? $handfuls : $longer;
        }

        return $handfuls;
    }

    /**
     * What lies in the bin beside what these have.
     *
     * @param  array<int, int>  $plan
     * @param  Lists  $lists
     * @return array<int, int>
     */
    private function leftBy(array $plan, array $lists): array
    {
        $left = $this->stock;
        foreach ($plan as $place => $choice) {
            foreach ($lists[$place][$choice][1] as $part => $pieces) {
                $left[$part] -= $pieces;
            }
        }

        return $left;
    }

    /**
     * @param  array<int, int>  $plan
     * @param  Lists  $lists
     */
    private static function cost(array $plan, array $lists): float
    {
        $cost = 0.0;
        foreach ($plan as $place => $choice) {
            $cost += $lists[$place][$choice][0];
        }

        return $cost;
    }
}
