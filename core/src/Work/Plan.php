<?php

declare(strict_types=1);

namespace Yard\Core\Work;

use Yard\Core\BadInput;

/** What can be done now on a unit, what waits for what, what is out of reach, and the least work to get somewhere. */
final readonly class Plan
{
    /**
     * @param  array<int, mixed>  $done  keys are done
     * @param  array<int, mixed>  $jammed  keys cannot be done for now; what is done is not jammed
     */
    private function __construct(
        public Graph $graph,
        private array $done,
        private array $jammed,
        private float $effort,
    ) {
    }

    /**
     * @param  list<int>  $done
     * @param  list<int>  $jammed
     * @param  float  $effort  1: about two seconds of search
     */
    public static function of(Graph $graph, array $done, array $jammed, float $effort = 1.0): self
    {
        $done = array_flip($done);

        return new self($graph, $done, array_diff_key(array_flip($jammed), $done), $effort);
    }

    /** @return list<int> */
    public function available(): array
    {
        return array_values(array_diff($this->open(), array_keys($this->waiting())));
    }

    /** @return array<int, list<int>> operation => what is missing before it; of a group nobody of is done, all of it */
    public function waiting(): array
    {
        $waiting = [];
        foreach ($this->open() as $n) {
            $for = array_filter($this->graph->after[$n], fn (int $b): bool => ! isset($this->done[$b]));
            foreach ($this->openGroups($n, $this->done) as $members) {
                array_push($for, ...$members);
            }
            $for === [] || ($waiting[$n] = array_values(array_unique($for)));
        }

        return $waiting;
    }

    /** @return array<int, list<int>> operation nobody can come to => the jammed ones that are why */
    public function unreachable(): array
    {
        $reached = $this->reached();
        $unreachable = [];
        foreach ($this->open() as $n) {
            if (! isset($reached[$n])) {
                $unreachable[$n] = $this->because([$n], $reached);
            }
        }

        return $unreachable;
    }

    /** The cheapest closed set of what is left, with everything that is not an alternative. */
    public function left(): Cheapest
    {
        $all = array_fill_keys(array_keys($this->graph->operations), true);
        $required = array_filter(
            array_keys(array_diff_key($all, $this->done)),
            fn (int $n): bool => ! $this->graph->operations[$n]->alternative,
        );

        return (new CheapestSet($this->graph, $this->done, $all, $this->effort))->with(array_values($required));
    }

    /** @param  list<int>  $set */
    public function longestPath(array $set): CriticalPath
    {
        return CriticalPath::of($this->graph, $this->done, $set);
    }

    /**
     * The least work after which an operation is done or a part is off.
     *
     * @throws BadInput unknown-operation
     */
    public function reach(string $target): Reach
    {
        $goals = $this->goals($target);
        if (array_intersect_key(array_flip($goals), $this->done) !== []) {
            return Reach::already();
        }
        $reached = $this->reached();
        if (array_intersect_key(array_flip($goals), $reached) === []) {
            return Reach::barred($this->because($goals, $reached));
        }
        $best = null;
        foreach (array_filter($goals, static fn (int $g): bool => isset($reached[$g])) as $goal) {
            $way = (new CheapestSet($this->graph, $this->done, $reached, $this->effort))->with([$goal]);
            $bound = min($way->bound, $best->bound ?? INF);
            $optimal = $way->optimal && ($best->optimal ?? true);
            $set = $best === null || $way->set->isBetterThan($best->set) ? $way->set : $best->set;
            $best = new Cheapest($set, $bound, $optimal);
        }

        return Reach::by($best ?? new Cheapest(WorkSet::none(), 0.0, true), $this->graph, $this->done);
    }

    /**
     * What was done and can no longer have been, once these are undone: by every way it was reached.
     *
     * @param  list<int>  $undone
     * @return list<int>
     */
    public function reopened(array $undone): array
    {
        $left = array_diff_key($this->done, array_flip($undone));
        $kept = [];
        do {
            $before = count($kept);
            foreach ($this->graph->workable([]) as $n) {
                if (isset($left[$n]) && $this->stands($n, $kept)) {
                    $kept[$n] = true;
                }
            }
        } while (count($kept) > $before);
        $fallen = array_keys(array_diff_key($left, $kept));
        sort($fallen);

        return $fallen;
    }

    /**
     * Whether what was done before it still stands; what never was done is no reason to fall.
     *
     * @param  array<int, true>  $kept
     */
    private function stands(int $n, array $kept): bool
    {
        foreach ($this->graph->after[$n] as $before) {
            if (isset($this->done[$before]) && ! isset($kept[$before])) {
                return false;
            }
        }
        foreach ($this->graph->groups[$n] as $members) {
            $were = array_intersect_key(array_flip($members), $this->done);
            if ($were !== [] && array_intersect_key($were, $kept) === []) {
                return false;
            }
        }

        return true;
    }

    /** @return list<int> neither done nor jammed */
    private function open(): array
    {
        return array_keys(array_diff_key($this->graph->operations, $this->done, $this->jammed));
    }

    /** @return array<int, true> what can be come to while the jammed ones stay */
    private function reached(): array
    {
        $may = array_diff_key($this->graph->operations, $this->jammed);

        return array_fill_keys($this->graph->workable($this->done, $may), true);
    }

    /**
     * @param  list<int>  $from
     * @param  array<int, true>  $reached
     * @return list<int> the jammed ones found by following what is missing
     */
    private function because(array $from, array $reached): array
    {
        [$jammed, $seen] = [[], []];
        while ($from !== []) {
            $n = array_pop($from);
            if (isset($seen[$n]) || isset($reached[$n]) || isset($this->done[$n])) {
                continue;
            }
            $seen[$n] = true;
            if (isset($this->jammed[$n])) {
                $jammed[] = $n;

                continue;
            }
            $groups = $this->openGroups($n, $reached + $this->done);
            array_push($from, ...$this->graph->after[$n], ...array_merge(...$groups));
        }
        sort($jammed);

        return $jammed;
    }

    /**
     * @param  array<int, mixed>  $there
     * @return list<non-empty-list<int>> groups before an operation that none of these fills
     */
    private function openGroups(int $n, array $there): array
    {
        return array_values(array_filter(
            $this->graph->groups[$n],
            static fn (array $members): bool => array_intersect_key(array_flip($members), $there) === [],
        ));
    }

    /**
     * @return non-empty-list<int> operations any of which brings it
     *
     * @throws BadInput unknown-operation
     */
    private function goals(string $target): array
    {
        if ($this->graph->has($target)) {
            return [$this->graph->place($target, '/target')];
        }
        $goals = array_keys(array_filter(
            $this->graph->operations,
            static fn (Operation $o): bool => in_array($target, $o->removes, true),
        ));
        $goals !== [] || throw new BadInput(
            'unknown-operation',
            "There is no operation \"$target\", and none that removes a part of that name.",
            '/target',
        );

        return $goals;
    }
}
