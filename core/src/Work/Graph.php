<?php

declare(strict_types=1);

namespace Yard\Core\Work;

use Yard\Core\BadInput;

/**
 * Operations and what each waits for, by their places in the list. An operation can be done once all of its `after` are
 * and one of each of its groups is (an AND-OR graph); every operation can be reached when nothing is jammed.
 */
final readonly class Graph
{
    /** @var array<string, int> */
    private array $places;

    /** @var list<list<int>> */
    public array $after;

    /** @var list<list<non-empty-list<int>>> */
    public array $groups;

    /** @var list<list<int>> operation => those that have it in `after` */
    public array $followers;

    /** @var list<list<array{int, int}>> operation => groups it is in: whose, which */
    public array $memberships;

    /**
     * @param  list<Operation>  $operations
     *
     * @throws BadInput duplicate-operation, unknown-operation, empty-group, cycle
     */
    public function __construct(public array $operations)
    {
        $places = [];
        foreach ($operations as $n => $operation) {
            isset($places[$operation->id]) && throw new BadInput(
                'duplicate-operation',
                "The operation \"$operation->id\" is listed twice.",
                "/operations/$n/id",
            );
            $places[$operation->id] = $n;
        }
        $this->places = $places;
        $after = $groups = [];
        $followers = $memberships = array_fill(0, count($operations), []);
        foreach ($operations as $n => $operation) {
            $after[$n] = array_values(array_unique($this->placesOf($operation->after, "/operations/$n/after")));
            $groups[$n] = $this->groupsOf($operation, $n);
            foreach ($after[$n] as $before) {
                $followers[$before][] = $n;
            }
            foreach ($groups[$n] as $g => $members) {
                foreach ($members as $member) {
                    $memberships[$member][] = [$n, $g];
                }
            }
        }
        [$this->after, $this->groups] = [array_values($after), array_values($groups)];
        [$this->followers, $this->memberships] = [$followers, $memberships];
        $this->assertReachable();
    }

    public function count(): int
    {
        return count($this->operations);
    }

    public function place(string $id, string $pointer): int
    {
        return $this->places[$id] ??
            throw new BadInput('unknown-operation', "There is no operation \"$id\".", $pointer);
    }

    public function has(string $id): bool
    {
        return isset($this->places[$id]);
    }

    /**
     * @param  list<string>  $ids
     * @return list<int>
     */
    public function placesOf(array $ids, string $pointer): array
    {
        return array_map(
            fn (string $id, int $n): int => $this->place($id, "$pointer/$n"),
            $ids,
            array_keys($ids),
        );
    }

    /**
     * @param  iterable<int>  $places
     * @return list<string>
     */
    public function ids(iterable $places): array
    {
        $ids = [];
        foreach ($places as $place) {
            $ids[] = $this->operations[$place]->id;
        }

        return $ids;
    }

    /**
     * A workable order: each time the first one, in the order of the list, of which nothing is missing.
     *
     * @param  array<int, mixed>  $done  keys are done already
     * @param  array<int, mixed>|null  $of  keys may be done; null: all
     * @return list<int> those that can be done, without the done ones
     */
    public function workable(array $done, ?array $of = null): array
    {
        $progress = new Progress($this, $done, $of);
        $ready = new \SplMinHeap();
        foreach ($progress->ready() as $n) {
            $ready->insert($n);
        }
        $order = [];
        while (! $ready->isEmpty()) {
            /** @var int $n */
            $n = $ready->extract();
            $order[] = $n;
            foreach ($progress->finished($n) as $next) {
                $ready->insert($next);
            }
        }

        return $order;
    }

    /** @return list<non-empty-list<int>> */
    private function groupsOf(Operation $operation, int $n): array
    {
        $groups = [];
        foreach ($operation->afterAny as $g => $ids) {
            $members = array_values(array_unique($this->placesOf($ids, "/operations/$n/afterAny/$g")));
            $members === [] && throw new BadInput(
                'empty-group',
                "A group of alternatives before \"$operation->id\" is empty, so that it could never be done.",
                "/operations/$n/afterAny/$g",
            );
            $groups[] = $members;
        }

        return $groups;
    }

    private function assertReachable(): void
    {
        $never = array_diff(array_keys($this->operations), $this->workable([]));
        if ($never !== []) {
            $ids = $this->ids($never);
            $shown = implode(', ', array_slice($ids, 0, 8)).(count($ids) > 8 ? ' and '.(count($ids) - 8).' more' : '');
            $sentence = "These operations wait for each other and can never be done: $shown.";
            throw new BadInput('cycle', $sentence, '/operations');
        }
    }
}
