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

    /** Places of one search looked at, and of all searches of an order together, at an effort of 1. */
    private const MOST_STEPS = 12_000;

    private const MOST_IN_ALL = 40_000;

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

    private int $steps = 0;

    private int $stepsInAll = 0;

    /** Whether the last search looked everywhere it had to. */
    public bool $complete = true;

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
        private readonly float $effort = 1.0,
    ) {
        $this->codes = array_map(strval(...), array_keys($options));
        $this->index = array_flip($this->codes);
        foreach ($options as $option) {
            $this->cost[] = $option->price + (int) round(100.0 * $option->hours * $rate);
        }
        foreach ($options as $code => $option) {
            $this->rulesOf((string) $code, $option);
        }
        foreach ($oneOf as $group) {
            $this->exactlyOne($group);
        }
    }

    private function rulesOf(string $code, CatalogOption $option): void
    {
        foreach ($option->requires as $needed) {
            $because = $this->because($this->options[$needed]->why);
            $this->clause(
                [[$code, false], [$needed, true]],
                'requires',
                "\"$option->name\" needs \"{$this->options[$needed]->name}\"$because",
            );
        }
        foreach ($option->requiresAny as $any) {
            $this->clause(
                [[$code, false], ...array_map(static fn (string $c): array => [$c, true], $any)],
                'requiresAny',
                "\"$option->name\" needs one of {$this->named($any)}.",
            );
        }
        foreach ($option->excludes as $other) {
            $because = $this->because($option->why);
            $this->clause(
                [[$code, false], [$other, false]],
                'excludes',
                "\"$option->name\" and \"{$this->options[$other]->name}\" cannot be in one unit$because",
            );
        }
    }

    /** @param  list<string>  $group */
    private function exactlyOne(array $group): void
    {
        $names = $this->named($group);
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

    /** @param  list<string>  $codes */
    private function named(array $codes): string
    {
        return implode(', ', array_map(fn (string $c): string => '"'.$this->options[$c]->name.'"', $codes));
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
     *
     * @phpstan-impure sets `complete`
     */
    public function cheapest(array $wanted, bool $withMargins = true): ?array
    {
        $this->best = null;
        $this->steps = 0;
        $this->stepsInAll++;
        $this->complete = true;
        $this->withMargins = $withMargins && $this->enforceMargins && $this->margins !== null;
        $values = $this->start($wanted);
        if ($values === null) {
            return null;
        }
        $this->branch($values);

        return $this->best === null ? null : array_map(fn (int $i): string => $this->codes[$i], $this->best['chosen']);
    }

    /**
     * What no choice can do with less of.
     *
     * @param  list<string>  $wanted
     * @return array{packageLeftOut: int, cost: float} options of the package that stay out at least, and with so many
     *     of them the cost at least
     */
    public function leastOf(array $wanted): array
    {
        $values = $this->start($wanted);
        $least = $values === null ? 0 : $this->bound($values)[0];

        return [
            'packageLeftOut' => intdiv($least, self::PACKAGE_WEIGHT),
            'cost' => ($least % self::PACKAGE_WEIGHT) / 100.0,
        ];
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
        $this->stepsInAll++;
        if (
            ++$this->steps > self::MOST_STEPS * $this->effort ||
            $this->stepsInAll > self::MOST_IN_ALL * $this->effort
        ) {
            $this->complete = false;

            return;
        }
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
            $this->satisfy($open, $values);

            return;
        }
        $undecided = $this->undecided($values, $chosen);
        if ($undecided === null) {
            return;
        }
        if ($undecided >= 0) {
            $this->decide($values, $undecided, true);
            $this->decide($values, $undecided, false);

            return;
        }
        $this->best = ['cost' => $cost, 'count' => count($chosen), 'chosen' => $chosen];
    }

    /**
     * A clause that fails unless something more comes in: try its options, the cheapest first, each without those
     * tried before.
     *
     * @param  list<array{int, bool}>  $clause
     * @param  array<int, bool>  $values
     */
    private function satisfy(array $clause, array $values): void
    {
        $literals = array_values(
            array_filter($clause, static fn (array $l): bool => $l[1] && ! isset($values[$l[0]])),
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
    }

    /**
     * The option to decide next: one of the package, or one that could raise a margin that fails.
     *
     * @param  array<int, bool>  $values
     * @param  list<int>  $chosen
     * @return int|null -1 when the choice is complete, null when nothing is left that could raise a margin
     */
    private function undecided(array $values, array $chosen): ?int
    {
        foreach ($this->package as $code) {
            if (! isset($values[$this->index[$code]])) {
                return $this->index[$code];
            }
        }
        $codes = array_map(fn (int $i): string => $this->codes[$i], $chosen);
        if (! $this->withMargins || $this->margins === null || $this->margins->hold($codes)) {
            return -1;
        }
        foreach ($this->codes as $i => $code) {
            if (! isset($values[$i]) && $this->margins->concerns($code)) {
                return $i;
            }
        }

        return null;
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
        $cost = $this->costSoFar($values);
        $failing = null;
        $fewest = PHP_INT_MAX;
        $used = [];
        foreach ($this->clauses as $clause) {
            $open = self::openOptions($clause, $values);
            if ($open === null) {
                continue;
            }
            if (count($open) < $fewest) {
                [$failing, $fewest] = [$clause, count($open)];
            }
            if (array_intersect_key(array_flip($open), $used) === []) {
                $cost += min([PHP_INT_MAX, ...array_map(fn (int $i): int => $this->cost[$i], $open)]);
                $used += array_fill_keys(array_column($clause, 0), true);
            }
        }

        return [$cost, $failing];
    }

    /** @param  array<int, bool>  $values */
    private function costSoFar(array $values): int
    {
        $cost = 0;
        foreach ($values as $i => $in) {
            $cost += $in ? $this->cost[$i] : 0;
        }
        foreach ($this->package as $code) {
            $cost += $values[$this->index[$code]] ?? true ? 0 : self::PACKAGE_WEIGHT;
        }

        return $cost;
    }

    /**
     * The undecided options of which one must come in for the clause to hold.
     *
     * @param  list<array{int, bool}>  $clause
     * @param  array<int, bool>  $values
     * @return list<int>|null null where it holds, or will hold by leaving an option out
     */
    private static function openOptions(array $clause, array $values): ?array
    {
        $open = [];
        foreach ($clause as [$i, $value]) {
            if (isset($values[$i]) ? $values[$i] === $value : ! $value) {
                return null;
            }
            if (! isset($values[$i])) {
                $open[] = $i;
            }
        }

        return $open;
    }

    /**
     * The fewest wishes that cannot hold together; none when not even an order without wishes can be met. `complete`
     * tells whether they are the fewest, or only some that cannot.
     *
     * @param  list<string>  $wanted
     * @return list<string>
     *
     * @phpstan-impure sets `complete`
     */
    public function smallestClash(array $wanted): array
    {
        for ($size = 0; $size < count($wanted); $size++) {
            foreach (self::subsets($wanted, $size) as $subset) {
                if ($this->impossible($subset)) {
                    $this->complete = true;

                    return $subset;
                }
                if ($this->stepsInAll > self::MOST_IN_ALL * $this->effort) {
                    return $this->someClash($wanted);
                }
            }
        }
        $this->complete = true;

        return $wanted;
    }

    /** @param  list<string>  $wanted */
    private function impossible(array $wanted): bool
    {
        return $this->cheapest($wanted) === null && $this->complete;
    }

    /**
     * A clash from which no wish can be dropped, though a smaller one may stand elsewhere: found by leaving out one
     * wish after the other.
     *
     * @param  list<string>  $wanted
     * @return list<string>
     */
    private function someClash(array $wanted): array
    {
        $this->stepsInAll = 0;
        foreach ($wanted as $wish) {
            $rest = array_values(array_diff($wanted, [$wish]));
            if ($this->impossible($rest)) {
                $wanted = $rest;
            }
        }
        $this->complete = false;

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
        $values = $this->given($clash);
        // In the order of the steps, so that the first contradiction met is a short one.
        $queue = array_keys(array_filter($this->clauses, static fn (array $c): bool => count($c) === 1));
        foreach (array_keys($values) as $i) {
            array_push($queue, ...$this->in[$i] ?? []);
        }
        for ($at = 0; $at < count($queue); $at++) {
            $forced = self::forced($this->clauses[$queue[$at]], $values);
            if ($forced === []) {
                return [
                    'rule' => $this->rules[$queue[$at]],
                    'explain' => implode(' ', $this->trace($queue[$at], $values)),
                ];
            }
            if ($forced !== null) {
                $values[$forced[0]] = [$forced[1], $queue[$at]];
                array_push($queue, ...$this->in[$forced[0]] ?? []);
            }
        }
        $alternatives = array_filter(
            $this->sentences,
            fn (int $n): bool => in_array($this->rules[$n], ['requiresAny', 'oneOf'], true),
            ARRAY_FILTER_USE_KEY,
        );
        $first = implode(' ', array_slice(array_values(array_unique($alternatives)), 0, 3));

        return [
            'rule' => 'requiresAny',
            'explain' => "Whichever of the alternatives is taken, another rule forbids it: $first",
        ];
    }

    /**
     * What the wishes, the house list, the unit and the order settle before any rule is asked.
     *
     * @param  list<string>  $wanted
     * @return array<int, array{bool, int|null}> value and the clause that forced it
     */
    private function given(array $wanted): array
    {
        $values = [];
        foreach ([...$wanted, ...$this->always] as $code) {
            $values[$this->index[$code]] = [true, null];
        }
        foreach ($this->codes as $i => $code) {
            $out = $this->options[$code]->notHere !== null || in_array($code, $this->unwanted, true);
            if ($out && ! isset($values[$i])) {
                $values[$i] = [false, null];
            }
        }

        return $values;
    }

    /**
     * @param  list<array{int, bool}>  $clause
     * @param  array<int, array{bool, int|null}>  $values
     * @return array{int, bool}|array{}|null the literal that must hold now; none where the clause fails; null where it
     *     holds or leaves a choice
     */
    private static function forced(array $clause, array $values): ?array
    {
        $open = [];
        foreach ($clause as [$i, $value]) {
            if (isset($values[$i]) ? $values[$i][0] === $value : $open !== []) {
                return null;
            }
            $open = isset($values[$i]) ? $open : [$i, $value];
        }

        return $open;
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
            foreach ($this->clauses[$n] as [$i]) {
                $from = $values[$i][1] ?? null;
                $from === null || $from === $n || $visit($from);
            }
            array_push($out, ...$this->keptOut($n, $values));
            if ($this->rules[$n] !== 'oneOf' || $this->hasMemberHere($n)) {
                $out[] = $this->sentences[$n];
            }
        };
        $visit($clause);

        return $out;
    }

    /**
     * Why options of a clause cannot stand here. Nobody would have looked at what is made for another unit while
     * something made for this one fails.
     *
     * @param  array<int, array{bool, int|null}>  $values
     * @return list<string>
     */
    private function keptOut(int $clause, array $values): array
    {
        $kept = [];
        foreach ($this->clauses[$clause] as [$i]) {
            $option = $this->options[$this->codes[$i]];
            if ($option->notHere !== null && ($values[$i] ?? [true]) === [false, null]) {
                $kept[$option->otherUnit ? 'otherUnit' : 'thisOrder'][] = $option->notHere;
            }
        }

        return $kept['thisOrder'] ?? $kept['otherUnit'] ?? [];
    }

    private function hasMemberHere(int $clause): bool
    {
        foreach ($this->clauses[$clause] as [$i]) {
            if ($this->options[$this->codes[$i]]->notHere === null) {
                return true;
            }
        }

        return false;
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
        // What holds a margin says so, even where it is also one of a group.
        return $this->forcedBy($code, $chosen, ['requires']) ??
            $this->holdsMargin($code, $chosen) ??
            $this->forcedBy($code, $chosen, ['requiresAny', 'oneOf']) ??
            'It makes the choice the cheapest that holds.';
    }

    /**
     * The sentence of a rule that only this option satisfies.
     *
     * @param  list<string>  $chosen
     * @param  list<string>  $rules
     */
    private function forcedBy(string $code, array $chosen, array $rules): ?string
    {
        foreach ($this->in[$this->index[$code]] ?? [] as $n) {
            if (! in_array($this->rules[$n], $rules, true)) {
                continue;
            }
            $sides = [[], []];
            foreach ($this->clauses[$n] as [$i, $value]) {
                $sides[(int) $value][] = $this->codes[$i];
            }
            [$negative, $positive] = $sides;
            $only = array_values(array_intersect($positive, $chosen)) === [$code];
            if ($only && array_diff($negative, $chosen) === []) {
                return $this->sentences[$n];
            }
        }

        return null;
    }

    /** @param  list<string>  $chosen */
    private function holdsMargin(string $code, array $chosen): ?string
    {
        if (! $this->enforceMargins || $this->margins === null) {
            return null;
        }
        $sister = $this->sister($code);
        $others = array_values(array_diff($chosen, [$code]));
        $without = $this->margins->evaluate([...$others, ...$sister === null ? [] : [$sister]]);
        $weakest = $without->holds() === false ? $without->weakest() : null;
        if ($weakest === null) {
            return null;
        }

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
