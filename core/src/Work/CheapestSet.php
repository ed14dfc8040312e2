<?php

declare(strict_types=1);

namespace Yard\Core\Work;

/**
 * The least work that lets certain operations be done: a closed set of operations (with each, all of its `after` and
 * one of each of its groups), each of which can really be reached. Choosing among alternatives that share work is
 * NP-hard; this is an exact branch and bound with a limit of work. Groups that share no work are chosen apart, and
 * bounds add up over groups whose next steps share none.
 */
final class CheapestSet
{
    /** Steps of about two seconds. */
    private const STEPS = 3_000_000;

    private int $steps = 0;

    private readonly bool $acyclic;

    /**
     * @param  array<int, mixed>  $done  keys are done already
     * @param  array<int, mixed>  $allowed  keys may be done; each of them can be reached over others of them
     * @param  float  $effort  1: about two seconds of search
     */
    public function __construct(
        private readonly Graph $graph,
        private readonly array $done,
        private readonly array $allowed,
        private readonly float $effort = 1.0,
    ) {
        $this->acyclic = $this->isAcyclic();
    }

    /** @param  list<int>  $required  each allowed or done */
    public function with(array $required): Cheapest
    {
        $this->steps = 0;
        $in = $this->grown([], $required, []) ?? [];
        $open = $this->openGroups([], $in, $in);
        $bound = WorkSet::of($this->graph, $in)->hours + $this->least($open, $in, [])[0];
        $more = $this->solve($in, [], $open, [], null);
        $set = WorkSet::of($this->graph, $in + array_flip($more->places ?? []));

        return $this->exhausted()
            ? new Cheapest($set, min($bound, $set->hours), false)
            : new Cheapest($set, $set->hours, true);
    }

    private function exhausted(): bool
    {
        return $this->steps > self::STEPS * $this->effort;
    }

    /**
     * @param  array<int, true>  $in  what is chosen so far
     * @param  array<int, true>  $out  decided against
     * @param  list<list<int>>  $open  groups of which nobody is in
     * @param  array<int, true>  $base  what of `in` was chosen for these groups
     * @param  WorkSet|null  $best  what must be bettered
     * @return WorkSet|null `base` and what comes to it; null: nothing better
     */
    private function solve(array $in, array $out, array $open, array $base, ?WorkSet $best): ?WorkSet
    {
        if ($open === []) {
            return $this->closed($in, $out, $base, $best);
        }
        $parts = $this->acyclic && count($open) > 1 ? $this->apart($open, $in) : [$open];
        if (count($parts) === 1) {
            return $this->branch($in, $out, $open, $this->tightest($open, $out), $base, $best);
        }
        foreach ($parts as $part) {
            $more = $this->solve($in, $out, $part, [], null);
            if ($more === null) {
                return null;
            }
            $base += array_fill_keys($more->places, true);
        }

        return $this->better($base, $best);
    }

    /**
     * @param  array<int, true>  $in
     * @param  array<int, true>  $out
     * @param  list<list<int>>  $open
     * @param  list<int>  $choices  one of them must come in
     * @param  array<int, true>  $base
     */
    private function branch(array $in, array $out, array $open, array $choices, array $base, ?WorkSet $best): ?WorkSet
    {
        $found = null;
        foreach ($this->cheapFirst($choices, $in, $out) as $choice => $grown) {
            if (array_intersect_key($grown, $out) === []) {
                $added = array_diff_key($grown, $in);
                $left = $this->openGroups($open, $added, $grown);
                $more = $this->mayBetter($base + $added, $left, $grown, $out, $best)
                    ? $this->solve($grown, $out, $left, $base + $added, $best)
                    : null;
                [$found, $best] = [$more ?? $found, $more ?? $best];
            }
            if ($found !== null && $this->exhausted()) {
                break;
            }
            $out[$choice] = true; // what goes with it was looked at
        }

        return $found;
    }

    /**
     * No group is open; where operations can stand for each other in a circle, they must be reached from outside of it.
     *
     * @param  array<int, true>  $in
     * @param  array<int, true>  $out
     * @param  array<int, true>  $base
     */
    private function closed(array $in, array $out, array $base, ?WorkSet $best): ?WorkSet
    {
        if ($this->acyclic) {
            return $this->better($base, $best);
        }
        $this->steps += count($in);
        $reached = array_fill_keys($this->graph->workable($this->done, $in), true);
        $circle = array_diff_key($in, $reached);
        if ($circle === []) {
            return $this->better($base, $best);
        }
        // The first of the circle that is reached after all is reached over somebody who is not in yet.
        $choices = [];
        foreach (array_keys($circle) as $n) {
            foreach ($this->graph->groups[$n] as $members) {
                if (array_intersect_key(array_flip($members), $reached + $this->done) === []) {
                    $choices += array_flip($members);
                }
            }
        }
        $choices = array_intersect_key(array_diff_key($choices, $in, $out), $this->allowed);

        return $this->branch($in, $out, [], array_keys($choices), $base, $best);
    }

    /** @param  array<int, true>  $places */
    private function better(array $places, ?WorkSet $best): ?WorkSet
    {
        $set = WorkSet::of($this->graph, $places);

        return $best === null || $set->isBetterThan($best) ? $set : null;
    }

    /**
     * @param  array<int, true>  $base
     * @param  list<list<int>>  $open
     * @param  array<int, true>  $in
     * @param  array<int, true>  $out
     */
    private function mayBetter(array $base, array $open, array $in, array $out, ?WorkSet $best): bool
    {
        if ($best === null) {
            return true;
        }
        [$hours, $operations] = $this->least($open, $in, $out);

        return ! $best->beats(WorkSet::of($this->graph, $base)->hours + $hours, count($base) + $operations);
    }

    /**
     * What the open groups take at least: the cheapest next step of each, of groups that share none.
     *
     * @param  list<list<int>>  $open
     * @param  array<int, true>  $in
     * @param  array<int, true>  $out
     * @return array{float, int} hours, operations
     */
    private function least(array $open, array $in, array $out): array
    {
        [$hours, $operations, $counted] = [0.0, 0, []];
        foreach ($open as $members) {
            [$least, $fewest, $touched] = [INF, PHP_INT_MAX, []];
            foreach ($members as $member) {
                $grown = $this->grown($in, [$member], $out);
                if ($grown !== null) {
                    $set = WorkSet::of($this->graph, array_diff_key($grown, $in));
                    $least = min($least, $set->hours);
                    $fewest = min($fewest, count($set->places));
                    $touched += array_flip($set->places);
                }
            }
            if (is_infinite($least)) {
                return [INF, 0];
            }
            if (array_intersect_key($touched, $counted) === []) {
                $hours += $least;
                $operations += $fewest;
                $counted += $touched;
            }
        }

        return [$hours, $operations];
    }

    /**
     * @param  array<int, true>  $in
     * @param  list<int>  $add
     * @param  array<int, true>  $out
     * @return array<int, true>|null `in` with these and all of their `after`; null: one of them is decided against
     */
    private function grown(array $in, array $add, array $out): ?array
    {
        while ($add !== []) {
            $n = array_pop($add);
            if (isset($in[$n]) || isset($this->done[$n])) {
                continue;
            }
            $this->steps++;
            if (isset($out[$n]) || ! isset($this->allowed[$n])) {
                return null;
            }
            $in[$n] = true;
            array_push($add, ...$this->graph->after[$n]);
        }

        return $in;
    }

    /**
     * @param  list<list<int>>  $before  groups that were open
     * @param  array<int, true>  $added
     * @param  array<int, true>  $in  with the added ones
     * @return list<list<int>>
     */
    private function openGroups(array $before, array $added, array $in): array
    {
        foreach (array_keys($added) as $n) {
            array_push($before, ...$this->graph->groups[$n]);
        }
        $here = $in + $this->done;

        return array_values(
            array_filter($before, static fn (array $g): bool => array_intersect_key(array_flip($g), $here) === []),
        );
    }

    /**
     * @param  list<list<int>>  $open
     * @param  array<int, true>  $out
     * @return list<int> of the group with the fewest of them, those that may come in
     */
    private function tightest(array $open, array $out): array
    {
        $tightest = null;
        foreach ($open as $members) {
            $choices = array_values(
                array_filter($members, fn (int $m): bool => ! isset($out[$m]) && isset($this->allowed[$m])),
            );
            if ($tightest === null || count($choices) < count($tightest)) {
                $tightest = $choices;
            }
        }

        return $tightest ?? [];
    }

    /**
     * @param  list<int>  $choices
     * @param  array<int, true>  $in
     * @param  array<int, true>  $out
     * @return array<int, array<int, true>> choice => `in` with it and what it takes, the cheapest first
     */
    private function cheapFirst(array $choices, array $in, array $out): array
    {
        $grown = array_filter(array_combine(
            $choices,
            array_map(fn (int $c): ?array => $this->grown($in, [$c], $out), $choices),
        ));
        $sets = array_map(fn (array $g): WorkSet => WorkSet::of($this->graph, array_diff_key($g, $in)), $grown);
        uksort($grown, static fn (int $a, int $b): int => $sets[$a]->isBetterThan($sets[$b]) ? -1 : 1);

        return $grown;
    }

    /**
     * Groups in parts, so that no work could serve groups of two parts.
     *
     * @param  list<list<int>>  $open
     * @param  array<int, true>  $in
     * @return list<list<list<int>>>
     */
    private function apart(array $open, array $in): array
    {
        $part = range(0, count($open) - 1);
        $seen = [];
        foreach ($open as $g => $members) {
            $stack = $members;
            while ($stack !== []) {
                $n = array_pop($stack);
                if (isset($in[$n]) || isset($this->done[$n]) || ! isset($this->allowed[$n])) {
                    continue;
                }
                $this->steps++;
                if (isset($seen[$n])) {
                    $part = self::joined($part, $part[$g], $part[$seen[$n]]);

                    continue;
                }
                $seen[$n] = $g;
                array_push($stack, ...$this->graph->after[$n], ...array_merge(...$this->graph->groups[$n]));
            }
        }
        $parts = [];
        foreach ($open as $g => $members) {
            $parts[$part[$g]][] = $members;
        }

        return array_values($parts);
    }

    /**
     * @param  list<int>  $part
     * @return list<int>
     */
    private static function joined(array $part, int $a, int $b): array
    {
        return $a === $b ? $part : array_map(static fn (int $p): int => $p === $b ? $a : $p, $part);
    }

    private function isAcyclic(): bool
    {
        $left = array_diff_key($this->allowed, $this->done);
        [$before, $after] = [array_fill_keys(array_keys($left), 0), []];
        foreach (array_keys($left) as $n) {
            $all = array_unique([...$this->graph->after[$n], ...array_merge(...$this->graph->groups[$n])]);
            foreach (array_intersect_key(array_flip($all), $left) as $m => $_) {
                $before[$n]++;
                $after[$m][] = $n;
            }
        }
        $ready = array_keys($before, 0, true);
        for ($gone = 0; $ready !== []; $gone++) {
            foreach ($after[array_pop($ready)] ?? [] as $n) {
                --$before[$n] === 0 && $ready[] = $n;
            }
        }

        return $gone === count($left);
    }
}
