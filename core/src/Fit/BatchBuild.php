<?php

declare(strict_types=1);

namespace Yard\Core\Fit;

use Yard\Core\BadInput;

/**
 * One build that draws on a bin: the ways its parts can be picked so that its clearance lands in its window, told apart
 * only by what they take of the parts that could run short. The slots with fewest ways are filled first and the last
 * one is looked up by its sum, so that what misses the window is never put together.
 *
 * @phpstan-type Choice array{clearance: int, deviation: int, use: array<int, int>, picks: array<string, int>}
 * @phpstan-type Way array{sum: int, use: array<int, int>, picks: array<string, int>}
 * @phpstan-type Partial array{sum: int, use: array<int, int>, ways: list<int>}
 */
final class BatchBuild
{
    /** Ways to fill one slot in all builds, and at least in each; of more, evenly spaced ones. */
    private const MOST_WAYS = [36_000, 2_000];

    /** Partial stacks kept apart while all builds are spread out, and at least so many of each. */
    private const MOST_PARTIAL = [60_000, 2_000];

    /** Choices of all builds, and at least so many of each. */
    private const MOST_CHOICES = [12_000, 200];

    /** @var list<Choice> the smallest deviation first, no two that take the same scarce parts */
    public readonly array $choices;

    /** Whether every way was looked at. */
    public readonly bool $complete;

    private bool $isWhole = true;

    private readonly PieceCounts $counts;

    /**
     * @param  array<string, int>  $stock  pieces in the bin
     * @param  array<string, int>  $scarce  part that could run short => its number
     * @param  int  $builds  that share the bin, and the work
     *
     * @throws BadInput for more pieces than can be counted
     */
    public function __construct(
        StackUp $stack,
        private readonly array $stock,
        private readonly array $scarce,
        int $places,
        private readonly int $builds = 1,
    ) {
        $this->counts = new PieceCounts(count($scarce));
        PieceCounts::mustCount(array_sum(array_map(static fn (Slot $s): int => $s->pick, $stack->slots)));
        [$low, $high, $aim] = $stack->window->scaled($places);
        $space = $stack->space($places);
        $slots = array_map(fn (Slot $slot, int $s): array => $this->ways($slot, $s, $places), $stack->slots, array_keys(
            $stack->slots,
        ));
        usort($slots, static fn (array $a, array $b): int => count($a) <=> count($b));
        $partial = [['sum' => 0, 'use' => $this->counts->none(), 'ways' => []]];
        [$least, $most] = [0, 0];
        $rest = [];
        foreach (array_reverse($slots) as $ways) {
            array_unshift($rest, [$least, $most]);
            $sums = array_column($ways, 'sum') ?: [0];
            [$least, $most] = [$least + min($sums), $most + max($sums)];
        }
        foreach ($slots as $s => $ways) {
            [$least, $most] = $rest[$s];
            $partial = $this->spread($partial, $ways, [$space - $high - $most, $space - $low - $least]);
        }
        $this->choices = $this->nearest($partial, $slots, $space, $aim);
        $this->complete = $this->isWhole;
    }

    /**
     * Ways to fill one slot, alike ones once, the thinnest first.
     *
     * @return list<Way>
     */
    private function ways(Slot $slot, int $s, int $places): array
    {
        $states = [[$slot->pick, ['sum' => 0, 'use' => $this->counts->none(), 'picks' => []]]];
        foreach ($slot->options as $n => $option) {
            $next = [];
            $isLast = $n === count($slot->options) - 1;
            $most = $this->stock[$option->part] ?? $slot->pick;
            $thickness = $option->thickness->scaled($places);
            $ranges = array_map(
                static fn (array $state): array => [$isLast ? $state[0] : 0, min($most, $state[0]) + 1],
                $states,
            );
            foreach ($this->thinned($ranges, $this->share(self::MOST_WAYS)) as [$s0, $count]) {
                [$left, $way] = $states[$s0];
                $with = $this->with($way, $option->part, "$s\n$option->part", $count, $thickness);
                $key = $left - $count.':'.$with['sum'].':'.implode(',', $with['use']);
                $next[$key] ??= [$left - $count, $with];
            }
            $states = array_values($next);
        }
        $ways = array_column(array_filter($states, static fn (array $s): bool => $s[0] === 0), 1);
        usort($ways, static fn (array $a, array $b): int => $a['sum'] <=> $b['sum']);

        return $ways;
    }

    /**
     * All places of the ranges, or so many of them evenly.
     *
     * @param  list<array{int, int}>  $ranges  first, and first behind the last
     * @return \Generator<int, array{int, int}> range, and place in it
     */
    private function thinned(array $ranges, int $most): \Generator
    {
        $all = array_sum(array_map(static fn (array $r): int => max(0, $r[1] - $r[0]), $ranges));
        $stride = max(1, (int) ceil($all / $most));
        $this->isWhole = $this->isWhole && $stride === 1;
        $skip = 0;
        foreach ($ranges as $r => [$from, $to]) {
            for ($k = $from + $skip; $k < $to; $k += $stride) {
                yield [$r, $k];
            }
            $skip = max(0, $k - max($from, $to));
        }
    }

    /**
     * @param  Way  $way
     * @return Way
     */
    private function with(array $way, string $part, string $pick, int $count, int $thickness): array
    {
        if ($count > 0) {
            $way['sum'] += $count * $thickness;
            $way['picks'][$pick] = $count;
            if (isset($this->scarce[$part])) {
                $way['use'] = PieceCounts::sum($way['use'], $this->counts->packed([$this->scarce[$part] => $count]));
            }
        }

        return $way;
    }

    /**
     * @param  list<Partial>  $partial
     * @param  list<Way>  $ways  the thinnest first
     * @param  array{int, int}  $room  between which the sum must lie for the rest to bring it into the window
     * @return list<Partial>
     */
    private function spread(array $partial, array $ways, array $room): array
    {
        $stock = [];
        foreach ($this->scarce as $part => $number) {
            $stock[$number] = $this->stock[$part];
        }
        $limits = $this->counts->packed($stock);
        $sums = array_column($ways, 'sum');
        $ranges = array_map(static fn (array $a): array => [
            self::firstFrom($sums, $room[0] - $a['sum']),
            self::firstFrom($sums, $room[1] - $a['sum'] + 1),
        ], $partial);
        $out = [];
        foreach ($this->thinned($ranges, $this->share(self::MOST_PARTIAL)) as [$p, $w]) {
            $use = PieceCounts::sum($partial[$p]['use'], $ways[$w]['use']);
            if ($this->counts->fits($use, $limits)) {
                $sum = $partial[$p]['sum'] + $ways[$w]['sum'];
                $key = $sum.':'.implode(',', $use);
                $out[$key] ??= ['sum' => $sum, 'use' => $use, 'ways' => [...$partial[$p]['ways'], $w]];
            }
        }

        return array_values($out);
    }

    /** @param  array{int, int}  $most  of all builds, and at least of each */
    private function share(array $most): int
    {
        return max($most[1], intdiv($most[0], $this->builds));
    }

    /** @param  list<int>  $sorted */
    private static function firstFrom(array $sorted, int $least): int
    {
        [$low, $high] = [0, count($sorted)];
        while ($low < $high) {
            $middle = intdiv($low + $high, 2);
            $sorted[$middle] < $least ? ($low = $middle + 1) : ($high = $middle);
        }

        return $low;
    }

    /**
     * Of all that take the same scarce parts the nearest to the aim; of too many the nearest half, and of the others
     * some evenly.
     *
     * @param  list<Partial>  $found
     * @param  list<list<Way>>  $slots
     * @return list<Choice> the smallest deviation first
     */
    private function nearest(array $found, array $slots, int $space, int $aim): array
    {
        $off = static fn (int $sum): int => abs($space - $sum - $aim);
        usort($found, static fn (array $a, array $b): int => $off($a['sum']) <=> $off($b['sum']));
        $kept = [];
        foreach ($found as $partial) {
            $kept[implode(',', $partial['use'])] ??= $partial;
        }
        $kept = array_values($kept);
        $half = intdiv($this->share(self::MOST_CHOICES), 2);
        $further = [];
        foreach ($this->thinned([[min($half, count($kept)), count($kept)]], $half) as [, $k]) {
            $further[] = $kept[$k];
        }
        $kept = [...array_slice($kept, 0, $half), ...$further];

        return array_map(fn (array $p): array => [
            'clearance' => $space - $p['sum'],
            'deviation' => $off($p['sum']),
            'use' => $this->counts->listed($p['use']),
            'picks' => array_merge(
                ...array_map(static fn (int $w, int $s): array => $slots[$s][$w]['picks'], $p['ways'], array_keys(
                    $p['ways'],
                )),
                ...[[]],
            ),
        ], $kept);
    }
}
