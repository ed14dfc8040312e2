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
        foreach ($this->oneWay as [$old, $new]) {
            $back = self::reach($new, $this->forward)[$old] ?? null;
            if ($back !== null) {
                $members = $back;
                sort($members);
                $key = implode("\0", $members);
                if (! isset($named[$key])) {
                    $named[$key] = true;
                    $cycles[] = [$old, ...$back];
                }
            }
        }

        return $cycles;
    }

    /**
     * @param  array<string, list<string>>  $edges
     * @return array<string, list<string>> part reached => the way to it, shortest first
     */
    private static function reach(string $from, array $edges): array
    {
        $ways = [$from => [$from]];
        for ($queue = [$from]; $queue !== [];) {
            $at = array_shift($queue);
            foreach ($edges[$at] ?? [] as $next) {
                if (! isset($ways[$next])) {
                    $ways[$next] = [...$ways[$at], $next];
                    $queue[] = $next;
                }
            }
        }
        unset($ways[$from]);

        return $ways;
    }
}
