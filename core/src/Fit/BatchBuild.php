<?php

declare(strict_types=1);

namespace Yard\Core\Fit;

/**
 * One build that draws on a bin: every way its parts can be picked so that its clearance lands in its window, told
 * apart only by what it takes of the parts that could run short.
 *
 * @phpstan-type Choice array{clearance: int, deviation: int, use: array<int, int>, picks: array<string, int>}
 */
final class BatchBuild
{
    /** Partial stacks kept apart while a build is spread out. */
    public const MOST_PARTIAL = 150_000;

    /** @var list<Choice> the smallest deviation first, no two that take the same scarce parts */
    public readonly array $choices;

    /** Whether every way was looked at. */
    public readonly bool $complete;

    /**
     * @param  array<string, int>  $stock  pieces in the bin
     * @param  array<string, int>  $scarce  part that could run short => its number
     */
    public function __construct(
        StackUp $stack,
        private readonly array $stock,
        private readonly array $scarce,
        int $places,
    ) {
        [$low, $high, $aim] = $stack->window->scaled($places);
        $space = $stack->space($places);
        $complete = true;
        $partial = [['sum' => 0, 'use' => [], 'picks' => []]];
        $rest = self::rest($stack, $places);
        foreach ($stack->slots as $s => $slot) {
            [$least, $most] = $rest[$s];
            $room = [$space - $high - $most, $space - $low - $least];
            $partial = $this->spread($partial, $this->ways($slot, $s, $places), $room);
            if (count($partial) > self::MOST_PARTIAL) {
                $complete = false;
                $partial = array_slice($partial, 0, self::MOST_PARTIAL);
            }
        }
        $found = [];
        foreach ($partial as ['sum' => $sum, 'use' => $use, 'picks' => $picks]) {
            $clearance = $space - $sum;
            if ($clearance >= $low && $clearance <= $high) {
                $deviation = abs($clearance - $aim);
                $found[] = ['clearance' => $clearance, 'deviation' => $deviation, 'use' => $use, 'picks' => $picks];
            }
        }
        $this->choices = self::nearest($found);
        $this->complete = $complete;
    }

    /** @return list<array{int, int}> thickness the slots behind each one add at least and at most */
    private static function rest(StackUp $stack, int $places): array
    {
        $out = [];
        [$least, $most] = [0, 0];
        foreach (array_reverse($stack->slots) as $slot) {
            array_unshift($out, [$least, $most]);
            $thick = array_map(static fn (SelectivePart $p): int => $p->thickness->scaled($places), $slot->options);
            $least += $slot->pick * min($thick ?: [0]);
            $most += $slot->pick * max($thick ?: [0]);
        }

        return $out;
    }

    /**
     * Every way to fill one slot, alike ones once.
     *
     * @return list<array{sum: int, use: array<int, int>, picks: array<string, int>}>
     */
    private function ways(Slot $slot, int $s, int $places): array
    {
        $states = [0 => ['' => ['sum' => 0, 'use' => [], 'picks' => []]]];
        foreach ($slot->options as $option) {
            $most = min($slot->pick, $this->stock[$option->part] ?? $slot->pick);
            $thickness = $option->thickness->scaled($places);
            $next = [];
            foreach ($states as $pieces => $alike) {
                for ($count = 0; $count <= min($most, $slot->pick - $pieces); $count++) {
                    foreach ($alike as $state) {
                        $with = $this->with($state, $option->part, "$s\n$option->part", $count, $thickness);
                        $next[$pieces + $count][self::key($with)] ??= $with;
                    }
                }
            }
            $states = $next;
        }

        return array_values($states[$slot->pick] ?? []);
    }

    /**
     * @param  array{sum: int, use: array<int, int>, picks: array<string, int>}  $state
     * @return array{sum: int, use: array<int, int>, picks: array<string, int>}
     */
    private function with(array $state, string $part, string $pick, int $count, int $thickness): array
    {
        if ($count > 0) {
            $state['sum'] += $count * $thickness;
            $state['picks'][$pick] = $count;
            if (isset($this->scarce[$part])) {
                $state['use'][$this->scarce[$part]] = ($state['use'][$this->scarce[$part]] ?? 0) + $count;
            }
        }

        return $state;
    }

    /**
     * @param  list<array{sum: int, use: array<int, int>, picks: array<string, int>}>  $partial
     * @param  list<array{sum: int, use: array<int, int>, picks: array<string, int>}>  $ways
     * @param  array{int, int}  $room  between which the sum must lie for the rest to bring it into the window
     * @return list<array{sum: int, use: array<int, int>, picks: array<string, int>}>
     */
    private function spread(array $partial, array $ways, array $room): array
    {
        $limits = [];
        foreach ($this->scarce as $part => $number) {
            $limits[$number] = $this->stock[$part];
        }
        $out = [];
        foreach ($partial as $a) {
            foreach ($ways as $b) {
                $sum = $a['sum'] + $b['sum'];
                if ($sum < $room[0] || $sum > $room[1]) {
                    continue;
                }
                $use = self::sum($a['use'], $b['use']);
                if (self::fits($use, $limits)) {
                    $both = [
                        'sum' => $sum,
                        'use' => $use,
                        'picks' => $a['picks'] + $b['picks'],
                    ];
                    $out[self::key($both)] ??= $both;
                }
            }
            if (count($out) > self::MOST_PARTIAL) {
                break;
            }
        }

        return array_values($out);
    }

    /**
     * @param  array<int, int>  $a
     * @param  array<int, int>  $b
     * @return array<int, int>
     */
    private static function sum(array $a, array $b): array
    {
        foreach ($b as $k => $count) {
            $a[$k] = ($a[$k] ?? 0) + $count;
        }

        return $a;
    }

    /**
     * @param  array<int, int>  $use
     * @param  array<int, int>  $left
     */
    public static function fits(array $use, array $left): bool
    {
        foreach ($use as $k => $count) {
            if ($count > $left[$k]) {
                return false;
            }
        }

        return true;
    }

    /** @param  array{sum: int, use: array<int, int>, picks: array<string, int>}  $state */
    private static function key(array $state): string
    {
        $use = $state['use'];
        ksort($use);

        return $state['sum'].':'.json_encode($use);
    }

    /**
     * Of all that take the same scarce parts the nearest to the aim.
     *
     * @param  list<Choice>  $choices
     * @return list<Choice> the smallest deviation first
     */
    private static function nearest(array $choices): array
    {
        usort($choices, static fn (array $a, array $b): int => $a['deviation'] <=> $b['deviation']);
        $kept = [];
        foreach ($choices as $choice) {
            $use = $choice['use'];
            ksort($use);
            $kept[json_encode($use)] ??= $choice;
        }

        return array_values($kept);
    }
}
