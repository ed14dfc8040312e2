<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

/** The same questions answered by trying every set of operations: for small graphs only. */
final class WorkReference
{
    /** @var array<string, array<string, mixed>> */
    private readonly array $operations;

    /**
     * @param  list<array<string, mixed>>  $operations
     * @param  list<string>  $done
     * @param  list<string>  $jammed
     */
    public function __construct(array $operations, private readonly array $done, private readonly array $jammed)
    {
        $this->operations = array_column($operations, null, 'id');
    }

    public function canAllBeDone(): bool
    {
        return $this->stands(array_keys($this->operations));
    }

    /**
     * @param  list<string>  $ids
     * @return bool whether these could all have been done, in some order, with nothing else
     */
    public function stands(array $ids): bool
    {
        return count($this->closure([], $ids)) === count($ids);
    }

    /** @return list<string> */
    public function available(): array
    {
        return array_values(array_filter(
            array_diff(array_keys($this->operations), $this->done, $this->jammed),
            fn (string $id) => $this->isDue($id, $this->done),
        ));
    }

    /** @return list<string> */
    public function unreachable(): array
    {
        $free = array_diff(array_keys($this->operations), array_diff($this->jammed, $this->done));
        $reached = $this->closure($this->done, $free);

        return array_values(array_diff($free, $reached, $this->done));
    }

    /** @return list<string> */
    public function required(): array
    {
        return array_keys(array_filter($this->operations, fn (array $o) => ! $o['alternative']));
    }

    /** @return array{hours: float, ids: list<string>, ways: int, ties: int}|null */
    public function reach(string $target): ?array
    {
        $goals = isset($this->operations[$target])
            ? [$target]
            : array_keys(array_filter($this->operations, fn (array $o) => in_array($target, $o['removes'], true)));
        if (array_intersect($goals, $this->done) !== []) {
            return ['hours' => 0.0, 'ids' => [], 'ways' => 1, 'ties' => 1];
        }

        return $this->search(fn (array $set) => array_intersect($goals, $set) !== [], jammedToo: false);
    }

    /**
     * @param  list<string>  $required
     * @return array{hours: float, ids: list<string>, ways: int, ties: int}|null
     */
    public function cheapest(array $required, bool $jammedToo): ?array
    {
        $left = array_diff($required, $this->done);

        return $this->search(fn (array $set) => array_diff($left, $set) === [], $jammedToo);
    }

    /** @param  list<string>  $order */
    public function works(array $order): bool
    {
        $done = $this->done;
        foreach ($order as $id) {
            if (! $this->isDue($id, $done)) {
                return false;
            }
            $done[] = $id;
        }

        return true;
    }

    /** @return array{hours: float, ids: list<string>, ways: int, ties: int}|null */
    private function search(callable $enough, bool $jammedToo): ?array
    {
        $free = array_values(array_diff(array_keys($this->operations), $this->done, $jammedToo ? [] : $this->jammed));
        $best = $ids = null;
        $ways = $ties = 0;
        for ($bits = 0; $bits < 1 << count($free); $bits++) {
            $set = array_values(array_filter($free, fn (int $k) => $bits >> $k & 1, ARRAY_FILTER_USE_KEY));
            if (! $enough($set) || count($this->closure($this->done, $set)) !== count($set)) {
                continue;
            }
            $ways++;
            $hours = array_sum(array_map(fn (string $id) => $this->operations[$id]['hours'], $set));
            $places = array_keys(array_intersect(array_keys($this->operations), $set));
            $rank = [round($hours, 9), count($set), $places];
            $ties = $best !== null && $rank[0] === $best[0] ? $ties + 1 : ($best === null || $rank < $best ? 1 : $ties);
            if ($best === null || $rank < $best) {
                [$best, $ids] = [$rank, $set];
            }
        }

        return $best === null ? null : ['hours' => $best[0], 'ids' => $ids, 'ways' => $ways, 'ties' => $ties];
    }

    /**
     * @param  array<string>  $done
     * @param  array<string>  $of
     * @return list<string> those of them that can be done
     */
    private function closure(array $done, array $of): array
    {
        $reached = [];
        do {
            $before = count($reached);
            foreach (array_diff($of, $done, $reached) as $id) {
                if ($this->isDue($id, [...$done, ...$reached])) {
                    $reached[] = $id;
                }
            }
        } while (count($reached) > $before);

        return $reached;
    }

    /** @param  array<string>  $done */
    private function isDue(string $id, array $done): bool
    {
        $groups = $this->operations[$id]['afterAny'] ?? [];

        return array_diff($this->operations[$id]['after'] ?? [], $done) === [] &&
            array_filter($groups, fn (array $group) => array_intersect($group, $done) === []) === [];
    }
}
