<?php

declare(strict_types=1);

namespace Yard\Core\Interchange;

use Yard\Core\BadInput;

/**
 * What replaces a part and what it replaces, through chains of supersessions, one way or both ways. A chain that comes
 * back to its beginning over a one-way link contradicts itself; such cycles are named (strongly connected components).
 */
final class Supersession
{
    /** @var array<string, list<string>> part => what may stand in for it */
    private array $forward = [];

    /** @var array<string, list<string>> */
    private array $backward = [];

    /** @var list<array{string, string}> old, new */
    private array $oneWay = [];

    /** @throws BadInput for a part that supersedes itself */
    public function supersede(string $old, string $new, bool $bothWays): void
    {
        if ($old === $new) {
            throw new BadInput('self', "The part \"$old\" cannot supersede itself.", '/new');
        }
        $this->forward[$old][] = $new;
        $this->backward[$new][] = $old;
        if ($bothWays) {
            $this->forward[$new][] = $old;
            $this->backward[$old][] = $new;
        } else {
            $this->oneWay[] = [$old, $new];
        }
    }

    /** @return array<string, list<string>> part => the way to it, shortest first */
    public function replacing(string $part): array
    {
        return self::reach($part, $this->forward);
    }

    /** @return array<string, list<string>> part => the way from it */
    public function replacedBy(string $part): array
    {
        return array_map(array_reverse(...), self::reach($part, $this->backward));
    }

    /** @return list<string> what may stand in for the part and the part for it */
    public function interchangeable(string $part): array
    {
        return array_map(
            strval(...),
            array_keys(array_intersect_key($this->replacing($part), self::reach($part, $this->backward))),
        );
    }

    /** @return list<string> what to order today: nothing supersedes it one way; inside a cycle there is no such part */
    public function current(string $part): array
    {
        $outOfDate = array_fill_keys(array_column($this->oneWay, 0), true);
        $chain = array_map(strval(...), [$part, ...array_keys($this->replacing($part))]);

        return array_values(array_filter($chain, static fn (string $p): bool => ! isset($outOfDate[$p])));
    }

    /** @return list<list<string>> each cycle once, beginning and ending with the same part */
    public function cycles(): array
    {
        $cycles = $named = [];
        $component = $this->components();
        foreach ($this->oneWay as [$old, $new]) {
            if ($component[$old] !== $component[$new]) {
                continue;
            }
            $back = self::reach($new, $this->forward)[$old] ?? [];
            $members = $back;
            sort($members);
            $key = implode("\0", $members);
            if (! isset($named[$key])) {
                $named[$key] = true;
                $cycles[] = [$old, ...$back];
            }
        }

        return $cycles;
    }

    /**
     * Parts that lead to each other share a number (Kosaraju and Sharir: the order in which a walk leaves the parts,
     * then walks against the links).
     *
     * @return array<string, int>
     */
    private function components(): array
    {
        $order = $seen = [];
        foreach (array_keys($this->forward + $this->backward) as $part) {
            foreach (self::left((string) $part, $this->forward, $seen) as $next) {
                $order[] = $next;
            }
        }
        $component = $seen = [];
        foreach (array_reverse($order) as $n => $part) {
            foreach (self::left($part, $this->backward, $seen) as $member) {
                $component[$member] = $n;
            }
        }

        return $component;
    }

    /**
     * Parts reached and not seen before, in the order in which a depth-first walk leaves them.
     *
     * @param  array<string, list<string>>  $edges
     * @param  array<string, true>  $seen
     * @return list<string>
     */
    private static function left(string $from, array $edges, array &$seen): array
    {
        if (isset($seen[$from])) {
            return [];
        }
        $seen[$from] = true;
        $out = [];
        $stack = [[$from, 0]];
        while ($stack !== []) {
            [$at, $k] = array_pop($stack);
            $next = $edges[$at][$k] ?? null;
            if ($next === null) {
                $out[] = $at;

                continue;
            }
            $stack[] = [$at, $k + 1];
            if (! isset($seen[$next])) {
                $seen[$next] = true;
                $stack[] = [$next, 0];
            }
        }

        return $out;
    }

    /**
     * @param  array<string, list<string>>  $edges
     * @return array<string, list<string>> part reached => the way to it, shortest first
     */
    private static function reach(string $from, array $edges): array
    {
        $ways = [$from => [$from]];
        $queue = [$from];
        for ($i = 0; $i < count($queue); $i++) {
            foreach ($edges[$queue[$i]] ?? [] as $next) {
                if (! isset($ways[$next])) {
                    $ways[$next] = [...$ways[$queue[$i]], $next];
                    $queue[] = $next;
                }
            }
        }
        unset($ways[$from]);

        return $ways;
    }
}
