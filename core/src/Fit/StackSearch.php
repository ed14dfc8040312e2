<?php

declare(strict_types=1);

namespace Yard\Core\Fit;

use Yard\Core\BadInput;
use Yard\Core\Decimal;

/**
 * Exact search over the choices of one stack-up. The slots are split into two halves; every choice of the first half
 * looks up the fitting choices of the second in a list sorted by thickness, so that the work grows with the square
 * root of the number of combinations. Whole numbers throughout.
 */
final class StackSearch
{
    private const LARGEST_HALF = 400_000;

    /** @var list<array{sum: int, counts: array<int, int>}> choices of the first half */
    private array $first = [];

    /** @var list<array{sum: int, counts: array<int, int>}> choices of the second half, by sum */
    private array $second = [];

    /** @var list<array{slot: string, part: string, thickness: int, cost: ?float}> every option of every slot */
    private array $options = [];

    /** @var list<list<int>> option numbers a slot */
    private array $optionsOf = [];

    /** @var array<string, list<int>> limited part => its option numbers, when more than one slot offers it */
    private array $shared = [];

    /**
     * @param  list<Slot>  $slots
     * @param  array<string, int>  $stock
     */
    public function __construct(
        private readonly array $slots,
        private readonly array $stock,
        private readonly int $space,
        private readonly int $places,
    ) {
        $byPart = [];
        foreach ($slots as $s => $slot) {
            $this->optionsOf[$s] = [];
            foreach ($slot->options as $option) {
                $byPart[$option->part][] = $this->optionsOf[$s][] = count($this->options);
                $this->options[] = [
                    'slot' => $slot->name,
                    'part' => $option->part,
                    'thickness' => $option->thickness->scaled($places),
                    'cost' => $option->cost,
                ];
            }
        }
        $this->shared = array_intersect_key(
            array_filter($byPart, static fn (array $o): bool => count($o) > 1),
            $stock,
        );
        $this->split();
    }

    /** Whether the shelf holds enough pieces to fill every slot at all. */
    public function stockSuffices(): bool
    {
        foreach ($this->first as $a) {
            foreach ($this->second as $b) {
                if ($this->inStock($a['counts'] + $b['counts'])) {
                    return true;
                }
            }
        }

        return false;
    }

    /** @return list<array<string, mixed>> the best choices inside [low, high], best first */
    public function best(int $wanted, int $low, int $high, int $aim): array
    {
        $kept = [];
        $limit = max($aim - $low, $high - $aim);
        foreach ($this->first as $a) {
            // clearance = space - a - b, so b close to space - a - aim first, walking outwards both ways
            $ideal = $this->space - $a['sum'] - $aim;
            $up = $this->lowerBound($ideal);
            foreach ([[$up, 1], [$up - 1, -1]] as [$i, $step]) {
                for (; isset($this->second[$i]); $i += $step) {
                    $clearance = $this->space - $a['sum'] - $this->second[$i]['sum'];
                    $deviation = abs($clearance - $aim);
                    if ($deviation > $limit) {
                        break;
                    }
                    $counts = $a['counts'] + $this->second[$i]['counts'];
                    if ($clearance < $low || $clearance > $high || ! $this->inStock($counts)) {
                        continue;
                    }
                    $kept[] = $this->ranked($clearance, $deviation, $counts);
                    if (count($kept) >= 4 * $wanted) {
                        usort($kept, self::compare(...));
                        $kept = array_slice($kept, 0, $wanted);
                        $limit = $kept[$wanted - 1]['deviation'];
                    }
                }
            }
        }
        usort($kept, self::compare(...));

        return array_map($this->present(...), array_slice($kept, 0, $wanted));
    }

    /** @return array<string, mixed> the choice that misses the window by least */
    public function nearest(int $low, int $high, int $aim): array
    {
        $best = null;
        foreach ($this->first as $a) {
            foreach ([$low, $high] as $edge) {
                $up = $this->lowerBound($this->space - $a['sum'] - $edge);
                foreach ([[$up, 1], [$up - 1, -1]] as [$i, $step]) {
                    for (; isset($this->second[$i]); $i += $step) {
                        $clearance = $this->space - $a['sum'] - $this->second[$i]['sum'];
                        $outside = max($low - $clearance, $clearance - $high);
                        if (
                            $best !== null &&
                            abs($clearance - $edge) > $best['deviation'] &&
                            $outside > $best['deviation']
                        ) {
                            break;
                        }
                        $counts = $a['counts'] + $this->second[$i]['counts'];
                        if ($this->inStock($counts)) {
                            $candidate = $this->ranked($clearance, $outside, $counts);
                            if ($best === null || self::compare($candidate, $best) < 0) {
                                $best = $candidate;
                            }
                        }
                    }
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
     * @param  array<int, int>  $counts
     * @return array{clearance: int, deviation: int, distinct: int, cost: float, counts: array<int, int>,
     *     key: ?list<array{string, string, int}>}
     */
    private function ranked(int $clearance, int $deviation, array $counts): array
    {
        $parts = [];
        $cost = 0.0;
        foreach ($counts as $o => $count) {
            $parts[$this->options[$o]['part']] = true;
            $cost += $count * ($this->options[$o]['cost'] ?? 0.0);
        }

        return [
            'clearance' => $clearance,
            'deviation' => $deviation,
            'distinct' => count($parts),
            'cost' => $cost,
            'counts' => $counts,
            'key' => $this->sortedPicks($counts),
        ];
    }

    /**
     * Smallest deviation, fewest distinct parts, lowest cost, then the picks in sorted order.
     *
     * @param  array{deviation: int, distinct: int, cost: float, key: ?list<array{string, string, int}>}  $a
     * @param  array{deviation: int, distinct: int, cost: float, key: ?list<array{string, string, int}>}  $b
     */
    private static function compare(array $a, array $b): int
    {
        $cost = round($a['cost'] - $b['cost'], 9);

        return $a['deviation'] <=> $b['deviation'] ?:
            $a['distinct'] <=> $b['distinct'] ?:
            $cost <=> 0.0 ?:
            self::compareKeys($a['key'] ?? [], $b['key'] ?? []);
    }

    /**
     * @param  list<array{string, string, int}>  $a
     * @param  list<array{string, string, int}>  $b
     */
    private static function compareKeys(array $a, array $b): int
    {
        foreach ($a as $i => [$slot, $part, $count]) {
            if (! isset($b[$i])) {
                return 1;
            }
            $order = strcmp($slot, $b[$i][0]) ?: strcmp($part, $b[$i][1]) ?: $count <=> $b[$i][2];
            if ($order !== 0) {
                return $order;
            }
        }

        return count($a) <=> count($b);
    }

    /**
     * @param  array<int, int>  $counts
     * @return list<array{string, string, int}>
     */
    private function sortedPicks(array $counts): array
    {
        $picks = [];
        foreach ($counts as $o => $count) {
            $picks[] = [$this->options[$o]['slot'], $this->options[$o]['part'], $count];
        }
        usort($picks, static fn (array $a, array $b): int => strcmp($a[0], $b[0]) ?: strcmp($a[1], $b[1]));

        return $picks;
    }

    /**
     * @param  array{clearance: int, deviation: int, cost: float, counts: array<int, int>}  $choice
     * @return array<string, mixed>
     */
    private function present(array $choice): array
    {
        ksort($choice['counts']);
        $picks = [];
        $unpriced = [];
        foreach ($choice['counts'] as $o => $count) {
            $picks[] = [
                'slot' => $this->options[$o]['slot'],
                'part' => $this->options[$o]['part'],
                'count' => $count,
            ];
            if ($this->options[$o]['cost'] === null) {
                $unpriced[$this->options[$o]['part']] = true;
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

    /** @param  array<int, int>  $counts */
    private function inStock(array $counts): bool
    {
        foreach ($this->shared as $part => $options) {
            $used = 0;
            foreach ($options as $o) {
                $used += $counts[$o] ?? 0;
            }
            if ($used > $this->stock[$part]) {
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

    /** Fills both halves: slots go, largest first, to the half that is smaller so far. */
    private function split(): void
    {
        $choices = [];
        foreach ($this->slots as $s => $slot) {
            $choices[$s] = $this->choicesOf($s, $slot->pick);
        }
        uasort($choices, static fn (array $a, array $b): int => count($b) <=> count($a));
        /**
         * @var array{list<array{sum: int, counts: array<int, int>}>, list<array{sum: int, counts: array<int,
         *     int>}>} $halves
         */
        $halves = [[['sum' => 0, 'counts' => []]], [['sum' => 0, 'counts' => []]]];
        foreach ($choices as $list) {
            $to = count($halves[0]) < count($halves[1]) ? 0 : 1;
            if (count($halves[$to]) * count($list) > self::LARGEST_HALF) {
                throw new BadInput(
                    'too-large',
                    'There are too many combinations of selective parts to search them all; offer fewer options a '
                        .'slot.',
                    '/slots',
                );
            }
            $product = [];
            foreach ($halves[$to] as $a) {
                foreach ($list as $b) {
                    $product[] = ['sum' => $a['sum'] + $b['sum'], 'counts' => $a['counts'] + $b['counts']];
                }
            }
            $halves[$to] = $product;
        }
        [$this->first, $this->second] = $halves;
        usort($this->second, static fn (array $a, array $b): int => $a['sum'] <=> $b['sum']);
    }

    /** @return list<array{sum: int, counts: array<int, int>}> every multiset of `pick` pieces the shelf allows */
    private function choicesOf(int $slot, int $pick): array
    {
        $out = [];
        $options = $this->optionsOf[$slot];
        $walk = /** @param  array<int, int>  $counts */ function (int $i, int $left, int $sum, array $counts) use (
            &$walk,
            &$out,
            $options,
        ): void {
            if ($left === 0) {
                $out[] = ['sum' => $sum, 'counts' => $counts];

                return;
            }
            if (! isset($options[$i])) {
                return;
            }
            if (count($out) > self::LARGEST_HALF) {
                throw new BadInput(
                    'too-large',
                    'There are too many combinations of selective parts to search them all; offer fewer options a '
                        .'slot.',
                    '/slots',
                );
            }
            $o = $options[$i];
            $most = min($left, $this->stock[$this->options[$o]['part']] ?? $left);
            for ($count = $most; $count >= 0; $count--) {
                $next = $counts;
                if ($count > 0) {
                    $next[$o] = $count;
                }
                $walk($i + 1, $left - $count, $sum + $count * $this->options[$o]['thickness'], $next);
            }
        };
        $walk(0, $pick, 0, []);

        /** @var list<array{sum: int, counts: array<int, int>}> $out */
        return $out;
    }
}
