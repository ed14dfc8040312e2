<?php

declare(strict_types=1);

namespace Yard\Core\Work;

/** What is still missing before each operation, while one after the other is finished. */
final class Progress
{
    /** @var array<int, int> operation => how many of its `after` and of its groups are missing */
    private array $missing = [];

    /** @var array<int, array<int, bool>> operation => group => whether one of it is done */
    private array $filled = [];

    /**
     * @param  array<int, mixed>  $done  keys are done already
     * @param  array<int, mixed>|null  $of  keys may be done; null: all
     */
    public function __construct(private readonly Graph $graph, array $done, ?array $of = null)
    {
        foreach ($graph->after as $n => $after) {
            if (isset($done[$n]) || ($of !== null && ! isset($of[$n]))) {
                continue;
            }
            $this->missing[$n] = count(array_diff_key(array_flip($after), $done));
            foreach ($graph->groups[$n] as $g => $members) {
                $this->filled[$n][$g] = array_intersect_key(array_flip($members), $done) !== [];
                $this->missing[$n] += $this->filled[$n][$g] ? 0 : 1;
            }
        }
    }

    /** @return list<int> those of which nothing is missing from the start */
    public function ready(): array
    {
        return array_keys($this->missing, 0, true);
    }

    /** @return list<int> those of which nothing is missing any more now that this one is finished */
    public function finished(int $done): array
    {
        $freed = [];
        foreach ($this->graph->followers[$done] as $n) {
            $this->fill($n) && $freed[] = $n;
        }
        foreach ($this->graph->memberships[$done] as [$n, $g]) {
            if (isset($this->filled[$n]) && ! $this->filled[$n][$g]) {
                $this->filled[$n][$g] = true;
                $this->fill($n) && $freed[] = $n;
            }
        }

        return $freed;
    }

    private function fill(int $n): bool
    {
        return isset($this->missing[$n]) && --$this->missing[$n] === 0;
    }
}
