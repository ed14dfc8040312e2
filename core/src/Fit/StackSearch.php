<?php

declare(strict_types=1);

namespace Yard\Core\Fit;

use Yard\Core\BadInput;
use Yard\Core\Decimal;

/**
 * Exact search over the choices of one stack-up. Choices of one thickness are kept together, the best few of them only,
 * so that what is searched grows with the thicknesses that can be reached and not with the ways to reach them. The
 * slots are split into two halves; every thickness of the first looks up the fitting ones of the second. Whole numbers
 * throughout.
 *
 * @phpstan-type Way array{distinct: int, cost: float, counts: array<int, int>}
 * @phpstan-type Group array{sum: int, use: array<int, int>, ways: list<Way>}
 * @phpstan-type Ranked array{clearance: int, deviation: int, distinct: int, cost: float, counts: array<int, int>}
 */
final class StackSearch
{
    /** Ways that one slot may be filled, and thicknesses of a half. */
    private const MOST_WAYS = 400_000;

    /** Steps of the search through pairs of thicknesses. */
    private const MOST_PAIRS = 3_000_000;

    /** @var list<Group> thicknesses of the first half */
    private array $first = [];

    /** @var list<Group> thicknesses of the second half, rising */
    private array $second = [];

    /** @var list<array{slot: string, part: string, thickness: int, cost: ?float, at: int}> by slot and part; at: as given */
    private array $options = [];

    /** @var array<string, list<int>> slot => its options */
    private array $optionsOf = [];

    /** @var array<int, int> option of a part that several slots offer => number of that part */
    private array $shared = [];

    /** @var array<int, int> number of such a part => pieces there are, where that is limited */
    private array $sharedStock = [];

    private int $pairs = 0;

    /**
     * @param  list<Slot>  $slots
     * @param  array<string, int>  $stock
     * @param  int  $wanted  choices that will be asked for
     */
    public function __construct(
        array $slots,
        private readonly array $stock,
        private readonly int $space,
        private readonly int $places,
        private readonly int $wanted,
    ) {
        $given = [];
        foreach ($slots as $slot) {
            foreach ($slot->options as $option) {
                $given[$slot->name][$option->part] = count($given, COUNT_RECURSIVE);
            }
        }
        usort($slots, static fn (Slot $a, Slot $b): int => strcmp($a->name, $b->name));
        $offered = [];
        foreach ($slots as $slot) {
            $this->optionsOf[$slot->name] = [];
            $parts = $slot->options;
            usort($parts, static fn (SelectivePart $a, SelectivePart $b): int => strcmp($a->part, $b->part));
            foreach ($parts as $part) {
                $offered[$part->part][] = $this->optionsOf[$slot->name][] = count($this->options);
                $this->options[] = [
                    'slot' => $slot->name,
                    'part' => $part->part,
                    'thickness' => $part->thickness->scaled($places),
                    'cost' => $part->cost,
                    'at' => $given[$slot->name][$part->part],
                ];
            }
        }
        foreach (array_values(array_filter($offered, static fn (array $o): bool => count($o) > 1)) as $n => $options) {
            $this->shared += array_fill_keys($options, $n);
            $pieces = $stock[$this->options[$options[0]]['part']] ?? null;
            $this->sharedStock += $pieces === null ? [] : [$n => $pieces];
        }
        $this->split($slots);
    }

    /**
     * What two choices take of shared parts: pieces of the limited ones, of the others only that they are there, since
     * a part in two slots counts as one.
     *
     * @param  array<int, int>  $a
     * @param  array<int, int>  $b
     * @return array<int, int>
     */
    private function together(array $a, array $b): array
    {
        foreach ($b as $part => $pieces) {
            $a[$part] = isset($this->sharedStock[$part]) ? ($a[$part] ?? 0) + $pieces : 1;
        }

        return $a;
    }

    /** Whether the shelf holds enough pieces to fill every slot at all. */
    public function stockSuffices(): bool
    {
        if ($this->sharedStock === []) {
            return $this->first !== [] && $this->second !== [];
        }
        foreach ($this->first as $a) {
            foreach ($this->second as $b) {
                if ($this->inStock($a, $b)) {
                    return true;
                }
            }
        }

        return false;
    }

    /** @return list<array<string, mixed>> the best choices inside [low, high], best first */
    public function best(int $low, int $high, int $aim): array
    {
        $kept = [];
        $limit = max($aim - $low, $high - $aim);
        foreach ($this->first as $a) {
            // clearance = space - a - b, so b close to space - a - aim first, walking outwards both ways
            $up = $this->lowerBound($this->space - $a['sum'] - $aim);
            foreach ([[$up, 1], [$up - 1, -1]] as [$i, $step]) {
                for (; isset($this->second[$i]); $i += $step) {
                    $clearance = $this->space - $a['sum'] - $this->second[$i]['sum'];
                    if (abs($clearance - $aim) > $limit) {
                        break;
                    }
                    $this->count();
                    if ($clearance >= $low && $clearance <= $high && $this->inStock($a, $this->second[$i])) {
                        array_push($kept, ...$this->ranked($clearance, abs($clearance - $aim), $a, $this->second[$i]));
                        [$kept, $limit] = $this->shortened($kept, $limit);
                    }
                }
            }
        }
        usort($kept, self::compare(...));

        return array_map($this->present(...), array_slice($kept, 0, $this->wanted));
    }

    /**
     * @param  list<Ranked>  $kept
     * @return array{list<Ranked>, int} once there are plenty only the best, and the deviation that can still join them
     */
    private function shortened(array $kept, int $limit): array
    {
        if (count($kept) < 4 * $this->wanted) {
            return [$kept, $limit];
        }
        usort($kept, self::compare(...));
        $kept = array_slice($kept, 0, $this->wanted);

        return [$kept, $kept[$this->wanted - 1]['deviation']];
    }

    /** @return array<string, mixed> the choice that misses the window by least */
    public function nearest(int $low, int $high, int $aim): array
    {
        $best = null;
        foreach ($this->first as $a) {
            foreach ([$low, $high] as $edge) {
                $up = $this->lowerBound($this->space - $a['sum'] - $edge);
                foreach ([[$up, 1], [$up - 1, -1]] as [$i, $step]) {
                    $best = $this->nearer($best, $a, $i, $step, [$low, $high, $edge]);
                }
            }
        }
        assert($best !== null);
        $clearance = $best['clearance'];
        $shortBy = $clearance < $low ? $low - $clearance : $high - $clearance;

        return ['deviation' => Decimal::unscale(abs($clearance - $aim), $this->places)] +
            $this->present($best) + ['shortBy' => Decimal::unscale($shortBy, $this->places)];
    }

    /**
     * Walks away from an edge of the window as long as something as near as the best can come.
     *
     * @param  Ranked|null  $best
     * @param  Group  $a
     * @param  array{int, int, int}  $window  lowest, highest, and the edge walked away from
     * @return Ranked|null
     */
    private function nearer(?array $best, array $a, int $i, int $step, array $window): ?array
    {
        [$low, $high, $edge] = $window;
        for (; isset($this->second[$i]); $i += $step) {
            $clearance = $this->space - $a['sum'] - $this->second[$i]['sum'];
            $outside = max($low - $clearance, $clearance - $high);
            if ($best !== null && min(abs($clearance - $edge), $outside) > $best['deviation']) {
                break;
            }
            $this->count();
            if ($this->inStock($a, $this->second[$i])) {
                $candidate = $this->ranked($clearance, $outside, $a, $this->second[$i])[0];
                if ($best === null || self::compare($candidate, $best) < 0) {
                    $best = $candidate;
                }
            }
        }

        return $best;
    }

    private function count(): void
    {
        if (++$this->pairs > self::MOST_PAIRS) {
            throw self::tooLarge();
        }
    }

    private static function tooLarge(): BadInput
    {
        return new BadInput(
            'too-large',
            'There are too many combinations of selective parts to search them all; offer fewer options a slot.',
            '/slots',
        );
    }

    /**
     * The best ways of a pair of thicknesses, best first.
     *
     * @param  Group  $a
     * @param  Group  $b
     * @return non-empty-list<Ranked>
     */
    private function ranked(int $clearance, int $deviation, array $a, array $b): array
    {
        $out = array_map(
            static fn (array $way): array => ['clearance' => $clearance, 'deviation' => $deviation] + $way,
            $this->joined($a['ways'], $b['ways']),
        );
        assert($out !== []);

        return $out;
    }

    /**
     * The best ways of two lists taken together: the i-th with the j-th can be among them only while few are better.
     *
     * @param  list<Way>  $first
     * @param  list<Way>  $second
     * @return list<Way>
     */
    private function joined(array $first, array $second): array
    {
        $out = [];
        foreach ($first as $i => $a) {
            foreach ($second as $j => $b) {
                if (($i + 1) * ($j + 1) > $this->wanted) {
                    break;
                }
                $counts = $a['counts'] + $b['counts'];
                ksort($counts);
                $parts = array_map(fn (int $o): string => $this->options[$o]['part'], array_keys($counts));
                $out[] = [
                    'distinct' => count(array_unique($parts)),
                    'cost' => $a['cost'] + $b['cost'],
                    'counts' => $counts,
                ];
            }
        }
        usort($out, self::compareWays(...));

        return array_slice($out, 0, $this->wanted);
    }

    /**
     * @param  Ranked  $a
     * @param  Ranked  $b
     */
    private static function compare(array $a, array $b): int
    {
        return $a['deviation'] <=> $b['deviation'] ?: self::compareWays($a, $b);
    }

    /**
     * Fewest distinct parts, lowest cost, then the picks in the order of slots and parts.
     *
     * @param  array{distinct: int, cost: float, counts: array<int, int>}  $a
     * @param  array{distinct: int, cost: float, counts: array<int, int>}  $b
     */
    private static function compareWays(array $a, array $b): int
    {
        return $a['distinct'] <=> $b['distinct'] ?:
            round($a['cost'] - $b['cost'], 9) <=> 0.0 ?:
            self::compareCounts($a['counts'], $b['counts']);
    }

    /**
     * @param  array<int, int>  $a  option => pieces, options rising
     * @param  array<int, int>  $b
     */
    private static function compareCounts(array $a, array $b): int
    {
        $other = array_keys($b);
        foreach (array_keys($a) as $i => $option) {
            if (! isset($other[$i])) {
                return 1;
            }
            $order = $option <=> $other[$i] ?: $a[$option] <=> $b[$option];
            if ($order !== 0) {
                return $order;
            }
        }

        return count($a) <=> count($b);
    }

    /**
     * @param  Ranked  $choice
     * @return array<string, mixed>
     */
    private function present(array $choice): array
    {
        $picks = $unpriced = [];
        $counts = $choice['counts'];
        uksort($counts, fn (int $a, int $b): int => $this->options[$a]['at'] <=> $this->options[$b]['at']);
        foreach ($counts as $o => $count) {
            ['slot' => $slot, 'part' => $part, 'cost' => $cost] = $this->options[$o];
            $picks[] = ['slot' => $slot, 'part' => $part, 'count' => $count];
            if ($cost === null) {
                $unpriced[$part] = true;
            }
        }
        $out = [
            'clearance' => Decimal::unscale($choice['clearance'], $this->places),
            'deviation' => Decimal::unscale($choice['deviation'], $this->places),
            'picks' => $picks,
            'cost' => $choice['cost'],
        ];

        return $unpriced === [] ? $out : $out + ['costMissing' => array_map(strval(...), array_keys($unpriced))];
    }

    /**
     * @param  Group  $a
     * @param  Group  $b
     */
    private function inStock(array $a, array $b): bool
    {
        foreach ($this->sharedStock as $part => $pieces) {
            if (($a['use'][$part] ?? 0) + ($b['use'][$part] ?? 0) > $pieces) {
                return false;
            }
        }

        return true;
    }

    private function lowerBound(int $sum): int
    {
        $low = 0;
        $high = count($this->second);
        while ($low < $high) {
            $middle = intdiv($low + $high, 2);
            $this->second[$middle]['sum'] < $sum ? ($low = $middle + 1) : ($high = $middle);
        }

        return $low;
    }

    /**
     * Fills both halves: slots go, those with most thicknesses first, to the half that is smaller so far.
     *
     * @param  list<Slot>  $slots
     */
    private function split(array $slots): void
    {
        $groups = array_map(fn (Slot $s): array => $this->groupsOf($s), $slots);
        usort($groups, static fn (array $a, array $b): int => count($b) <=> count($a));
        $nothing = [['sum' => 0, 'use' => [], 'ways' => [['distinct' => 0, 'cost' => 0.0, 'counts' => []]]]];
        $halves = [$nothing, $nothing];
        foreach ($groups as $list) {
            $to = count($halves[0]) < count($halves[1]) ? 0 : 1;
            $halves[$to] = $this->product($halves[$to], $list);
        }
        [$this->first, $this->second] = $halves;
        usort($this->second, static fn (array $a, array $b): int => $a['sum'] <=> $b['sum']);
    }

    /**
     * @param  list<Group>  $half
     * @param  list<Group>  $slot
     * @return list<Group>
     */
    private function product(array $half, array $slot): array
    {
        if (count($half) * count($slot) > self::MOST_WAYS) {
            throw self::tooLarge();
        }
        $groups = [];
        foreach ($half as $a) {
            foreach ($slot as $b) {
                if (! $this->inStock($a, $b)) {
                    continue;
                }
                $sum = $a['sum'] + $b['sum'];
                $use = $this->together($a['use'], $b['use']);
                $key = self::key($sum, $use);
                $ways = [...$groups[$key]['ways'] ?? [], ...$this->joined($a['ways'], $b['ways'])];
                usort($ways, self::compareWays(...));
                $groups[$key] = ['sum' => $sum, 'use' => $use, 'ways' => array_slice($ways, 0, $this->wanted)];
            }
        }

        return array_values($groups);
    }

    /** @param  array<int, int>  $use */
    private static function key(int $sum, array $use): string
    {
        ksort($use);

        return $use === [] ? (string) $sum : $sum.':'.json_encode($use);
    }

    /**
     * Every thickness a slot can be filled to, with the best ways to it. The walk takes the ways in the order in which
     * equal ones rank, so a way that is no better than the last one kept need not be looked at.
     *
     * @return list<Group>
     */
    private function groupsOf(Slot $slot): array
    {
        $groups = [];
        $left = self::MOST_WAYS;
        foreach ($this->ways($this->optionsOf[$slot->name], $slot->pick, []) as $counts) {
            if (--$left < 0) {
                throw self::tooLarge();
            }
            $sum = 0;
            $cost = 0.0;
            $use = [];
            foreach ($counts as $o => $count) {
                $sum += $count * $this->options[$o]['thickness'];
                $cost += $count * ($this->options[$o]['cost'] ?? 0.0);
                if (isset($this->shared[$o])) {
                    $use = $this->together($use, [$this->shared[$o] => $count]);
                }
            }
            $key = self::key($sum, $use);
            $groups[$key] ??= ['sum' => $sum, 'use' => $use, 'ways' => []];
            $way = ['distinct' => count($counts), 'cost' => $cost, 'counts' => $counts];
            $groups[$key]['ways'] = $this->among($groups[$key]['ways'], $way);
        }

        return array_values($groups);
    }

    /**
     * @param  list<Way>  $ways  best first
     * @param  Way  $way
     * @return list<Way>
     */
    private function among(array $ways, array $way): array
    {
        $n = count($ways);
        if ($n >= $this->wanted && self::compareWays($way, $ways[$n - 1]) >= 0) {
            return $ways;
        }
        while ($n > 0 && self::compareWays($way, $ways[$n - 1]) < 0) {
            $n--;
        }
        array_splice($ways, $n, 0, [$way]);

        return array_slice($ways, 0, $this->wanted);
    }

    /**
     * Every way to take so many pieces of these options that the shelf allows.
     *
     * @param  list<int>  $options
     * @param  array<int, int>  $counts  taken so far
     * @return \Generator<int, array<int, int>>
     */
    private function ways(array $options, int $pieces, array $counts): \Generator
    {
        if ($pieces === 0) {
            yield $counts;

            return;
        }
        $o = array_shift($options);
        if ($o === null) {
            return;
        }
        $most = min($pieces, $this->stock[$this->options[$o]['part']] ?? $pieces);
        if ($options === []) {
            if ($most === $pieces) {
                yield $counts + [$o => $pieces];
            }

            return;
        }
        for ($count = 1; $count <= $most; $count++) {
            yield from $this->ways($options, $pieces - $count, $counts + [$o => $count]);
        }
        yield from $this->ways($options, $pieces, $counts);
    }
}
