<?php

declare(strict_types=1);

namespace Yard\Core\Packages;

/**
 * The options as a satisfiability problem with costs. Every cost is 0 or more, so an undecided option is best left out,
 * unless it belongs to the package (leaving it out costs more than any price) or a margin still fails.
 */
final class OptionSearch
{
    /** Leaving an option of the package out weighs more than any price; counted in hundredths. */
    private const PACKAGE_WEIGHT = 1_000_000_000_000;

    /** @var list<string> */
    private array $codes;

    /** @var array<string, int> */
    private array $index = [];

    /** @var list<list<array{int, bool}>> clauses: at least one literal (option, value) must hold */
    private array $clauses = [];

    /** @var list<string> the sentence of each clause */
    private array $sentences = [];

    /** @var list<string> the rule each clause comes from */
    private array $rules = [];

    /** @var list<int> clauses that ask for an option whatever else stands in */
    private array $groups = [];

    /** @var array<int, list<int>> option => clauses it stands in */
    private array $in = [];

    /** @var list<int> */
    private array $cost = [];

    /** @var array{cost: int, count: int, chosen: list<int>}|null */
    private ?array $best = null;

    private bool $withMargins = true;

    /**
     * @param  array<string, CatalogOption>  $options
     * @param  list<list<string>>  $oneOf
     * @param  list<string>  $always
     * @param  list<string>  $unwanted
     * @param  list<string>  $package
     */
    public function __construct(
        private readonly array $options,
        array $oneOf,
        private readonly array $always,
        private readonly array $unwanted,
        private readonly array $package,
        float $rate,
        public readonly ?Margins $margins,
        private readonly bool $enforceMargins = true,
    ) {
        $this->codes = array_map(strval(...), array_keys($options));
        $this->index = array_flip($this->codes);
        foreach ($options as $option) {
            $this->cost[] = $option->price + (int) round(100.0 * $option->hours * $rate);
        }
        foreach ($options as $code => $option) {
            $code = (string) $code;
            foreach ($option->requires as $needed) {
                $this->clause(
                    [[$code, false], [$needed, true]],
                    'requires',
                    "\"$option->name\" needs \"{$options[$needed]->name}\"".$this->because($options[$needed]->why),
                );
            }
            foreach ($option->requiresAny as $any) {
                $this->clause(
                    [[$code, false], ...array_map(static fn (string $c): array => [$c, true], $any)],
                    'requiresAny',
                    "\"$option->name\" needs one of ".
                        implode(', ', array_map(fn (string $c): string => '"'.$options[$c]->name.'"', $any)).
                        '.',
                );
            }
            foreach ($option->excludes as $other) {
                $this->clause(
                    [[$code, false], [$other, false]],
                    'excludes',
                    "\"$option->name\" and \"{$options[$other]->name}\" cannot be in one unit".
                        $this->because($option->why),
                );
            }
        }
        foreach ($oneOf as $group) {
            $names = implode(', ', array_map(fn (string $c): string => '"'.$options[$c]->name.'"', $group));
            $this->clause(
                array_map(static fn (string $c): array => [$c, true], $group),
                'oneOf',
                "One of $names must be in.",
            );
            foreach ($group as $i => $a) {
                foreach (array_slice($group, $i + 1) as $b) {
                    $this->clause([[$a, false], [$b, false]], 'oneOf', "Only one of $names fits in.");
                }
            }
        }
    }

    private function because(string $why): string
    {
        return $why === '' ? '.' : ': '.rtrim($why, '.').'.';
    }

    /** @param  list<array{string, bool}>  $literals */
    private function clause(array $literals, string $rule, string $sentence): void
    {
        $n = count($this->clauses);
        $this->clauses[] = array_map(fn (array $l): array => [$this->index[$l[0]], $l[1]], $literals);
        $this->sentences[] = $sentence;
        $this->rules[] = $rule;
        if (array_filter($literals, static fn (array $l): bool => ! $l[1]) === []) {
            $this->groups[] = $n;
        }
        foreach ($this->clauses[$n] as [$i]) {
            $this->in[$i][] = $n;
        }
    }

    /**
     * @param  list<string>  $wanted
     * @return list<string>|null the cheapest choice in catalog order, null when there is none
     */
    public function cheapest(array $wanted, bool $withMargins = true): ?array
    {
        $this->best = null;
        $this->withMargins = $withMargins && $this->enforceMargins && $this->margins !== null;
        $values = $this->start($wanted);
        if ($values === null) {
            return null;
        }
        $this->branch($values);

        return $this->best === null ? null : array_map(fn (int $i): string => $this->codes[$i], $this->best['chosen']);
    }

    /**
     * What is fixed before any choice, with everything that follows from it.
     *
     * @param  list<string>  $wanted
     * @return array<int, bool>|null
     */
    private function start(array $wanted): ?array
    {
        $values = [];
        foreach ([...$wanted, ...$this->always] as $code) {
            $values[$this->index[$code]] = true;
        }
        foreach ($this->codes as $i => $code) {
            if ($this->options[$code]->notHere !== null || in_array($code, $this->unwanted, true)) {
                if ($values[$i] ?? false) {
                    return null;
                }
                $values[$i] = false;
            }
        }

        return $this->propagate($values, array_keys($this->clauses));
    }

    /**
     * @param  array<int, bool>  $values
     * @param  list<int>  $queue  clauses to look at
     * @return array<int, bool>|null null on a contradiction
     */
    private function propagate(array $values, array $queue): ?array
    {
        while ($queue !== []) {
            $clause = $this->clauses[array_pop($queue)];
            $open = null;
            foreach ($clause as $literal) {
                if (! isset($values[$literal[0]])) {
                    if ($open !== null && $open !== $literal) {
                        continue 2;
                    }
                    $open = $literal;
                } elseif ($values[$literal[0]] === $literal[1]) {
                    continue 2;
                }
            }
            if ($open === null) {
                return null;
            }
            $values[$open[0]] = $open[1];
            array_push($queue, ...$this->in[$open[0]]);
        }

        return $values;
    }

    /**
     * @param  array<int, bool>  $values
     */
    private function branch(array $values): void
    {
        [$cost, $open] = $this->bound($values);
        if ($this->best !== null && $cost > $this->best['cost']) {
            return;
        }
        $chosen = array_keys(array_filter($values));
        sort($chosen);
        // Among equally dear choices the one with fewer options stands; options are only added on the way down.
        if ($this->best !== null && $cost === $this->best['cost'] && count($chosen) >= $this->best['count']) {
            return;
        }
        if ($open !== null) {
            // A clause that fails unless something more comes in: try its options, the cheapest first, each without
            // those tried before.
            $literals = array_values(
                array_filter($open, static fn (array $l): bool => $l[1] && ! isset($values[$l[0]])),
            );
            usort($literals, fn (array $a, array $b): int => $this->cost[$a[0]] <=> $this->cost[$b[0]]);
            foreach ($literals as [$i]) {
                $this->decide($values, $i, true);
                $without = $this->propagate([$i => false] + $values, $this->in[$i] ?? []);
                if ($without === null) {
                    return;
                }
                $values = $without;
            }

            return;
        }
        foreach ($this->package as $code) {
            $i = $this->index[$code];
            if (! isset($values[$i])) {
                $this->decide($values, $i, true);
                $this->decide($values, $i, false);

                return;
            }
        }
        if (
            $this->withMargins &&
            $this->margins !== null &&
            ! $this->margins->hold(array_map(fn (int $i): string => $this->codes[$i], $chosen))
        ) {
            foreach ($this->codes as $i => $code) {
                if (! isset($values[$i]) && $this->margins->concerns($code)) {
                    $this->decide($values, $i, true);
                    $this->decide($values, $i, false);

                    return;
                }
            }

            return; // nothing left that could raise a margin
        }
        $this->best = ['cost' => $cost, 'count' => count($chosen), 'chosen' => $chosen];
    }

    /** @param  array<int, bool>  $values */
    private function decide(array $values, int $option, bool $value): void
    {
        $values[$option] = $value;
        $next = $this->propagate($values, $this->in[$option] ?? []);
        $next === null || $this->branch($next);
    }

    /**
     * Cost so far plus the least that failing clauses still add (clauses that share no option are added up).
     *
     * @param  array<int, bool>  $values
     * @return array{int, list<array{int, bool}>|null} bound, and a clause that fails while undecided options stay out
     */
    private function bound(array $values): array
    {
        $cost = 0;
        foreach ($values as $i => $in) {
            $cost += $in ? $this->cost[$i] : 0;
        }
        foreach ($this->package as $code) {
            $cost += $values[$this->index[$code]] ?? true ? 0 : self::PACKAGE_WEIGHT;
        }
        $failing = null;
        $fewest = PHP_INT_MAX;
        $used = [];
        foreach ($this->clauses as $clause) {
            $cheapest = PHP_INT_MAX;
            $positive = 0;
            $shared = false;
            foreach ($clause as [$i, $value]) {
                if (isset($values[$i]) ? $values[$i] === $value : ! $value) {
                    continue 2; // holds, or will hold by leaving the option out
                }
                if (! isset($values[$i])) {
                    $positive++;
                    $cheapest = min($cheapest, $this->cost[$i]);
                    $shared = $shared || isset($used[$i]);
                }
            }
            if ($positive < $fewest) {
                [$failing, $fewest] = [$clause, $positive];
            }
            if (! $shared) {
                $cost += $cheapest;
                foreach ($clause as [$i]) {
                    $used[$i] = true;
                }
            }
        }

        return [$cost, $failing];
    }

    /**
     * The fewest wishes that cannot hold together; none when not even an order without wishes can be met.
     *
     * @param  list<string>  $wanted
     * @return list<string>
     */
    public function smallestClash(array $wanted): array
    {
        for ($size = 0; $size < count($wanted); $size++) {
            foreach (self::subsets($wanted, $size) as $subset) {
                if ($this->cheapest($subset) === null) {
                    return $subset;
                }
            }
        }

        return $wanted;
    }

    /**
     * @param  list<string>  $items
     * @return \Generator<int, list<string>>
     */
    private static function subsets(array $items, int $size): \Generator
    {
        if ($size === 0) {
            yield [];

            return;
        }
        foreach ($items as $i => $item) {
            foreach (self::subsets(array_slice($items, $i + 1), $size - 1) as $rest) {
                yield [$item, ...$rest];
            }
        }
    }

    /**
     * Why these wishes cannot hold together, as a builder would say it.
     *
     * @param  list<string>  $clash
     * @return array{options: list<string>, rule: string, explain: string}
     */
    public function explain(array $clash): array
    {
        foreach ([...$clash, ...$this->always] as $code) {
            if ($this->options[$code]->notHere !== null) {
                return [
                    'options' => $clash === [] ? [$code] : $clash,
                    'rule' => 'notHere',
                    'explain' => $this->options[$code]->notHere,
                ];
            }
            if (in_array($code, $this->unwanted, true)) {
                return [
                    'options' => [$code],
                    'rule' => 'unwanted',
                    'explain' => "\"{$this->options[$code]->name}\" is wanted and taken off at once.",
                ];
            }
        }
        if ($this->cheapest($clash, false) !== null && $this->margins !== null) {
            $best = $this->strongest($clash);
            $weakest = $best['weakest'];

            return [
                'options' => $clash,
                'rule' => 'margin',
                'explain' => $weakest === null
                        ? 'No choice of options brings every margin over the limit.'
                        : sprintf(
                            'No choice of options holds: at best %s in gear %s%s carries %.0f N.m and must carry %.0f, '
                                .'a margin of %.2f.',
                            $weakest['element'],
                            $weakest['gear'],
                            self::atThrottle($weakest),
                            $weakest['capacity_nm'],
                            $weakest['demand_nm'],
                            $weakest['margin'],
                        ),
            ];
        }

        return ['options' => $clash] + $this->chain($clash);
    }

    /**
     * The rules that lead from the wishes to the contradiction, in the order they bite.
     *
     * @param  list<string>  $clash
     * @return array{rule: string, explain: string}
     */
    private function chain(array $clash): array
    {
        /** @var array<int, array{bool, int|null}> $values value and the clause that forced it */
        $values = [];
        foreach ([...$clash, ...$this->always] as $code) {
            $values[$this->index[$code]] = [true, null];
        }
        foreach ($this->codes as $i => $code) {
            if (
                ! isset($values[$i]) &&
                ($this->options[$code]->notHere !== null || in_array($code, $this->unwanted, true))
            ) {
                $values[$i] = [false, null];
            }
        }
        // In the order of the steps, so that the first contradiction met is a short one.
        $queue = array_keys(array_filter($this->clauses, static fn (array $c): bool => count($c) === 1));
        foreach (array_keys($values) as $i) {
            array_push($queue, ...$this->in[$i] ?? []);
        }
        for ($at = 0; $at < count($queue); $at++) {
            $open = null;
            foreach ($this->clauses[$queue[$at]] as $literal) {
                if (isset($values[$literal[0]]) ? $values[$literal[0]][0] === $literal[1] : $open !== null) {
                    continue 2; // holds, or leaves a choice
                }
                $open = isset($values[$literal[0]]) ? $open : $literal;
            }
            if ($open === null) {
                return [
                    'rule' => $this->rules[$queue[$at]],
                    'explain' => implode(' ', $this->trace($queue[$at], $values)),
                ];
            }
            $values[$open[0]] = [$open[1], $queue[$at]];
            array_push($queue, ...$this->in[$open[0]] ?? []);
        }

        return [
            'rule' => 'requiresAny',
            'explain' => 'Whichever of the alternatives is taken, another rule forbids it: '.
                implode(
                    ' ',
                    array_slice(
                        array_values(
                            array_unique(
                                array_filter(
                                    $this->sentences,
                                    fn (string $s, int $n): bool => $this->rules[$n] === 'requiresAny' ||
                                        $this->rules[$n] === 'oneOf',
                                    ARRAY_FILTER_USE_BOTH,
                                ),
                            ),
                        ),
                        0,
                        3,
                    ),
                ),
        ];
    }

    /**
     * @param  array<int, array{bool, int|null}>  $values
     * @return list<string>
     */
    private function trace(int $clause, array $values): array
    {
        $out = [];
        $seen = [];
        $visit = function (int $n) use (&$visit, &$out, &$seen, $values): void {
            if (isset($seen[$n])) {
                return;
            }
            $seen[$n] = true;
            $kept = [];
            foreach ($this->clauses[$n] as [$i]) {
                $from = $values[$i][1] ?? null;
                $option = $this->options[$this->codes[$i]];
                if ($from !== null && $from !== $n) {
                    $visit($from);
                } elseif ($from === null && ! ($values[$i][0] ?? true) && $option->notHere !== null) {
                    $kept[$option->otherUnit ? 'otherUnit' : 'thisOrder'][] = $option->notHere;
                }
            }
            // Nobody would have looked at what is made for another unit while something made for this one fails.
            array_push($out, ...$kept['thisOrder'] ?? ($kept['otherUnit'] ?? []));
            $members = array_map(fn (array $l): string => $this->codes[$l[0]], $this->clauses[$n]);
            if (
                $this->rules[$n] !== 'oneOf' ||
                array_filter($members, fn (string $c): bool => $this->options[$c]->notHere === null) !== []
            ) {
                $out[] = $this->sentences[$n];
            }
        };
        $visit($clause);

        return $out;
    }

    /**
     * The best margins that any choice reaches whose rules hold.
     *
     * @param  list<string>  $wanted
     * @return array{weakest: array{gear: string, element: string, margin: float, demand_nm: float, capacity_nm: float,
     *     opening?: float}|null}
     */
    private function strongest(array $wanted): array
    {
        $best = ['weakest' => null];
        $margins = $this->margins;
        $start = $this->start($wanted);
        if ($margins === null || $start === null) {
            return $best;
        }
        $stack = [$start];
        while ($stack !== []) {
            $values = array_pop($stack);
            foreach ($this->codes as $i => $code) {
                if (! isset($values[$i]) && $margins->concerns($code)) {
                    foreach ([true, false] as $value) {
                        $next = $this->propagate([$i => $value] + $values, $this->in[$i] ?? []);
                        $next === null || ($stack[] = $next);
                    }

                    continue 2;
                }
            }
            $result = $margins->evaluate(
                array_map(fn (int $i): string => $this->codes[$i], array_keys(array_filter($values))),
            );
            $weakest = $result->weakest();
            if ($best['weakest'] === null || ($weakest['margin'] ?? 0.0) > $best['weakest']['margin']) {
                $best = ['weakest' => $weakest];
            }
        }

        return $best;
    }

    /** @param  list<string>  $chosen */
    public function whyIn(string $code, array $chosen): string
    {
        $forced = function (array $rules) use ($code, $chosen): ?string {
            foreach ($this->in[$this->index[$code]] ?? [] as $n) {
                if (! in_array($this->rules[$n], $rules, true)) {
                    continue;
                }
                $positive = $negative = [];
                foreach ($this->clauses[$n] as [$i, $value]) {
                    $value ? ($positive[] = $this->codes[$i]) : ($negative[] = $this->codes[$i]);
                }
                if (
                    in_array($code, $positive, true) &&
                    array_diff($negative, $chosen) === [] &&
                    array_values(array_intersect($positive, $chosen)) === [$code]
                ) {
                    return $this->sentences[$n];
                }
            }

            return null;
        };
        $because = $forced(['requires']);
        if ($because !== null) {
            return $because;
        }
        // What holds a margin says so, even where it is also one of a group.
        $sister = $this->sister($code);
        $without = $this->enforceMargins
            ? $this->margins?->evaluate([
                ...array_values(array_diff($chosen, [$code])),
                ...$sister === null ? [] : [$sister],
            ])
            : null;
        $weakest = $without?->holds() === false ? $without->weakest() : null;
        if ($weakest !== null) {
            return sprintf(
                '%s %s in gear %s%s has a margin of %.2f; with it the weakest margin is %.2f.',
                $sister === null ? 'Without it' : "With \"{$this->options[$sister]->name}\" in its place",
                $weakest['element'],
                $weakest['gear'],
                self::atThrottle($weakest),
                $weakest['margin'],
                $this->margins->evaluate($chosen)->weakest()['margin'] ?? INF,
            );
        }
        $because = $forced(['requiresAny', 'oneOf']);
        if ($because !== null) {
            return $because;
        }

        return 'It makes the choice the cheapest that holds.';
    }

    /** @param  array{opening?: float}  $weakest */
    private static function atThrottle(array $weakest): string
    {
        return isset($weakest['opening']) ? sprintf(' at %.0f %% throttle', 100.0 * $weakest['opening']) : '';
    }

    /** @return list<string> the others of the group of which exactly one is in */
    private function groupOf(string $code): array
    {
        foreach ($this->in[$this->index[$code]] ?? [] as $n) {
            $group = array_map(
                fn (array $l): string => $this->codes[$l[0]],
                array_filter($this->clauses[$n], static fn (array $l): bool => $l[1]),
            );
            if ($this->rules[$n] === 'oneOf' && in_array($code, $group, true)) {
                return array_values(array_diff($group, [$code]));
            }
        }

        return [];
    }

    /** What would stand in the place of one of a group: the package's own, else the cheapest that can stand here. */
    private function sister(string $code): ?string
    {
        $others = array_values(
            array_filter(
                $this->groupOf($code),
                fn (string $c): bool => $this->options[$c]->notHere === null && ! in_array($c, $this->unwanted, true),
            ),
        );
        usort(
            $others,
            fn (string $a, string $b): int => [
                ! in_array($a, $this->package, true),
                $this->cost[$this->index[$a]],
            ] <=> [! in_array($b, $this->package, true), $this->cost[$this->index[$b]]],
        );

        return $others[0] ?? null;
    }

    /** @param  list<string>  $chosen */
    public function whyOut(string $code, array $chosen): string
    {
        if ($this->options[$code]->notHere !== null) {
            return $this->options[$code]->notHere;
        }

        foreach ($this->in[$this->index[$code]] ?? [] as $n) {
            $needed = array_map(
                fn (array $l): string => $this->codes[$l[0]],
                array_filter($this->clauses[$n], static fn (array $l): bool => $l[1]),
            );
            if (
                $this->rules[$n] === 'requires' &&
                ! in_array($code, $needed, true) &&
                array_intersect($needed, $chosen) === []
            ) {
                return $this->sentences[$n].
                    (array_intersect($needed, $this->unwanted) === [] ? ' That is not in.' : ' That was taken off.');
            }
        }
        if (in_array($code, $this->unwanted, true)) {
            return "\"{$this->options[$code]->name}\" was taken off.";
        }

        return $this->blocker($code, $chosen) ??
            "\"{$this->options[$code]->name}\" had to come out so that every rule holds.";
    }

    /** @param  list<string>  $chosen */
    private function blocker(string $code, array $chosen): ?string
    {
        foreach ($this->in[$this->index[$code]] ?? [] as $n) {
            $others = array_map(
                fn (array $l): string => $this->codes[$l[0]],
                array_filter($this->clauses[$n], fn (array $l): bool => ! $l[1] && $this->codes[$l[0]] !== $code),
            );
            $allNegative = array_filter($this->clauses[$n], static fn (array $l): bool => $l[1]) === [];
            if ($allNegative && $others !== [] && array_diff($others, $chosen) === []) {
                return $this->sentences[$n];
            }
        }

        return null;
    }

    /**
     * What each single option that is not in would do to the largest input torque, the best first. One of a group takes
     * the place of the one that is in.
     *
     * @param  list<string>  $chosen
     * @return list<array{option: string, largestInputTorque_nm: float, gain_nm: float}>
     */
    public function sensitivity(array $chosen): array
    {
        $out = [];
        $now = $this->margins?->evaluate($chosen)->largest();
        foreach ($this->codes as $code) {
            if (
                $now === null ||
                in_array($code, $chosen, true) ||
                ! $this->margins->concerns($code) ||
                $this->options[$code]->notHere !== null
            ) {
                continue;
            }
            $largest = $this->margins->evaluate([...array_diff($chosen, $this->groupOf($code)), $code])->largest();
            if ($largest !== null) {
                $out[] = ['option' => $code, 'largestInputTorque_nm' => $largest, 'gain_nm' => $largest - $now];
            }
        }
        usort($out, static fn (array $a, array $b): int => $b['gain_nm'] <=> $a['gain_nm']);

        return $out;
    }

    /**
     * Options that no choice can hold beside these wishes and the house list, each with its sentence; margins apart.
     * What only an option of the package keeps out is not among them: a wish would take its place.
     *
     * @param  list<string>  $wanted
     * @return list<array{option: string, because: string}>
     */
    public function forbidden(array $wanted): array
    {
        $out = [];
        $fixed = $this->start($wanted);
        $seen = $fixed === null ? [] : array_filter($this->model($fixed) ?? []);
        foreach ($this->codes as $i => $code) {
            if ($this->options[$code]->notHere !== null) {
                $out[] = ['option' => $code, 'because' => $this->options[$code]->notHere];
            } elseif ($fixed !== null && ! in_array($code, $this->unwanted, true) && ! isset($seen[$i])) {
                $model = isset($fixed[$i]) ? null : $this->modelWith($fixed, $i);
                if ($model === null) {
                    $out[] = ['option' => $code, 'because' => $this->chain([...$wanted, $code])['explain']];
                } else {
                    $seen += array_filter($model); // what stands in any choice that holds is not forbidden
                }
            }
        }

        return $out;
    }

    /**
     * One choice in which every rule holds, cost and margins apart.
     *
     * @param  array<int, bool>  $values
     * @param  list<int>|null  $asking  clauses that may still ask for more; null: all that can
     * @return array<int, bool>|null
     */
    private function model(array $values, ?array $asking = null): ?array
    {
        // Undecided options are left out, so only what stands in, or a group of which one must, can still ask for more.
        $asking ??= [...$this->groups, ...$this->clausesOf(array_keys(array_filter($values)))];
        while ($asking !== []) {
            $open = [];
            foreach ($this->clauses[array_pop($asking)] as [$i, $value]) {
                if (isset($values[$i]) ? $values[$i] === $value : ! $value) {
                    continue 2; // holds, or will hold by leaving the option out
                }
                isset($values[$i]) || ($open[] = $i);
            }
            foreach ($open as $i) {
                $next = $this->propagate([$i => true] + $values, $this->in[$i] ?? []);
                $model =
                    $next === null
                        ? null
                        : $this->model($next, [
                            ...$asking,
                            ...$this->clausesOf(array_keys(array_filter(array_diff_key($next, $values)))),
                        ]);
                if ($model !== null) {
                    return $model;
                }
                $values[$i] = false;
            }

            return null;
        }

        return $values;
    }

    /**
     * @param  list<int>  $options
     * @return list<int>
     */
    private function clausesOf(array $options): array
    {
        return array_merge(...array_map(fn (int $i): array => $this->in[$i] ?? [], $options), ...[[]]);
    }

    /**
     * @param  array<int, bool>  $values
     * @return array<int, bool>|null
     */
    private function modelWith(array $values, int $option): ?array
    {
        $next = $this->propagate([$option => true] + $values, $this->in[$option] ?? []);

        return $next === null ? null : $this->model($next);
    }
}
