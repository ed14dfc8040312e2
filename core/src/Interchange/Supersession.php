<?php

declare(strict_types=1);

namespace Yard\Core\Interchange;

use Yard\Core\Calculator;
use Yard\Core\Input;

/**
 * What replaces a part and what it replaces, through chains of supersessions, one way or both ways. A chain that comes
 * back to its beginning over a one-way link contradicts itself; such cycles are named (strongly connected components).
 */
final class Supersession implements Calculator
{
    public function calculate(Input $in): array
    {
        $part = $in->name('part');
        $forward = $backward = [];
        $oneWay = [];
        foreach ($in->list('links') as $link) {
            [$old, $new] = [$link->name('old'), $link->name('new')];
            if ($old === $new) {
                throw $link->at('new')->fail('self', "The part \"$old\" cannot supersede itself.");
            }
            $forward[$old][] = $new;
            $backward[$new][] = $old;
            if ($link->bool('bothWays')) {
                $forward[$new][] = $old;
                $backward[$old][] = $new;
            } else {
                $oneWay[] = [$old, $new];
            }
        }
        $replacedBy = self::reach($part, $forward);
        $replaces = self::reach($part, $backward);
        $both = array_values(array_intersect(array_keys($replacedBy), array_keys($replaces)));
        $cycles = self::cycles($forward, $oneWay);
        $outOfDate = array_fill_keys(array_column($oneWay, 0), true);

        return [
            'replacedBy' => array_map(
                static fn (string $p, array $way): array => ['part' => $p, 'way' => $way],
                array_map(strval(...), array_keys($replacedBy)),
                $replacedBy,
            ),
            'replaces' => array_map(
                static fn (string $p, array $way): array => ['part' => $p, 'way' => array_reverse($way)],
                array_map(strval(...), array_keys($replaces)),
                $replaces,
            ),
            'interchangeable' => array_map(strval(...), $both),
            // What to order today: nothing supersedes it one way. Inside a cycle there is no such part.
            'current' => array_values(
                array_filter(
                    array_map(strval(...), [$part, ...array_keys($replacedBy)]),
                    static fn (string $p): bool => ! isset($outOfDate[$p]),
                ),
            ),
            'cycles' => $cycles,
        ];
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

    /**
     * @param  array<string, list<string>>  $forward
     * @param  list<array{string, string}>  $oneWay
     * @return list<list<string>> each cycle once, beginning and ending with the same part
     */
    private static function cycles(array $forward, array $oneWay): array
    {
        $cycles = $named = [];
        foreach ($oneWay as [$old, $new]) {
            $back = self::reach($new, $forward)[$old] ?? null;
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
}
