<?php

declare(strict_types=1);

namespace Yard\Core\Work;

/**
 * How long work takes when everything that can be done at once is: the chain of operations that nothing can shorten.
 * Of a group the one that is done first lets go on.
 */
final readonly class CriticalPath
{
    /** @param  list<int>  $places  one after the other */
    private function __construct(public float $hours, public array $places)
    {
    }

    /**
     * @param  array<int, mixed>  $done  keys are done already
     * @param  list<int>  $set  a closed set of the others
     */
    public static function of(Graph $graph, array $done, array $set): self
    {
        $progress = new Progress($graph, $done, array_flip($set));
        /** @var \SplMinHeap<array{float, int}> $ends when, which */
        $ends = new \SplMinHeap();
        self::begin($graph, $ends, $progress->ready(), 0.0);
        $before = array_fill_keys($progress->ready(), null);
        /** @var array<int, float> $finish */
        $finish = [];
        while (! $ends->isEmpty()) {
            [$end, $n] = $ends->extract();
            $finish[$n] = $end;
            $freed = $progress->finished($n);
            self::begin($graph, $ends, $freed, $finish[$n]);
            foreach ($freed as $next) {
                $before[$next] = self::before($graph, $next, $finish, $done);
            }
        }
        $chain = [];
        for ($n = self::latest($finish, array_keys($finish)); $n !== null; $n = $before[$n]) {
            array_unshift($chain, $n);
        }

        return new self($finish === [] ? 0.0 : max($finish), $chain);
    }

    /**
     * @param  \SplMinHeap<array{float, int}>  $ends
     * @param  list<int>  $operations
     */
    private static function begin(Graph $graph, \SplMinHeap $ends, array $operations, float $at): void
    {
        foreach ($operations as $n) {
            $ends->insert([$at + $graph->operations[$n]->hours, $n]);
        }
    }

    /**
     * What an operation waited for the longest.
     *
     * @param  array<int, float>  $finish  hour at which each operation so far ended, in that order
     * @param  array<int, mixed>  $done
     */
    private static function before(Graph $graph, int $n, array $finish, array $done): ?int
    {
        $waitedFor = array_diff($graph->after[$n], array_keys($done));
        foreach ($graph->groups[$n] as $members) {
            if (array_intersect_key(array_flip($members), $done) === []) {
                $waitedFor[] = (int) array_key_first(array_intersect_key($finish, array_flip($members)));
            }
        }

        return self::latest($finish, array_values($waitedFor));
    }

    /**
     * @param  array<int, float>  $finish
     * @param  list<int>  $among
     * @return int|null of two that end at once the one that stands earlier in the list
     */
    private static function latest(array $finish, array $among): ?int
    {
        $latest = null;
        foreach ($among as $n) {
            if ($latest === null || [$finish[$n], -$n] > [$finish[$latest], -$latest]) {
                $latest = $n;
            }
        }

        return $latest;
    }
}
