<?php

declare(strict_types=1);

namespace Yard\Core\Interchange;

use Yard\Core\BadInput;

/**
 * Cheapest chain of conversion steps from each start to any goal: exact shortest path by Dijkstra's label setting
 * (Dijkstra, "A note on two problems in connexion with graphs", Numerische Mathematik 1, 1959) over states (node, facts
 * in force). A step may require or forbid facts, and may give or take facts; its weight is cost + hours x rate, never
 * negative.
 */
final class PathSearch
{
    /** States looked at before a search is called too large. */
    private const LIMIT = 200_000;

    /** @var array<string, list<Step>> node => steps leaving it */
    private array $leaving = [];

    /** @var array<string, list<string>> node => its facts that some step asks for */
    private array $nodeFacts = [];

    private int $explored = 0;

    /** @var array<string, true> facts that hold everywhere and that some step asks for */
    private array $facts;

    /**
     * @param  array<string, list<string>>  $nodes  node => facts that hold there
     * @param  list<Step>  $steps
     * @param  list<string>  $facts  that hold everywhere
     * @param  float  $rate  money an hour
     *
     * @throws BadInput for a step between unknown nodes, or listed twice
     */
    public function __construct(array $nodes, array $steps, array $facts = [], private readonly float $rate = 0.0)
    {
        $asked = $ids = [];
        foreach ($steps as $n => $step) {
            foreach (['from' => $step->from, 'to' => $step->to] as $field => $end) {
                if (! isset($nodes[$end])) {
                    throw new BadInput('unknown-node', "There is no node \"$end\".", "/steps/$n/$field");
                }
            }
            if (isset($ids[$step->id])) {
                throw new BadInput('duplicate', "The step \"$step->id\" is listed twice.", "/steps/$n/id");
            }
            $ids[$step->id] = true;
            $asked += $step->requires + $step->forbids;
            $this->leaving[$step->from][] = $step;
        }
        foreach ($nodes as $id => $holds) {
            $this->nodeFacts[$id] = array_values(
                array_filter($holds, static fn (string $f): bool => isset($asked[$f])),
            );
        }
        $this->facts = array_intersect_key(array_fill_keys($facts, true), $asked);
    }

    /**
     * The cheapest way from each start to any of the goals.
     *
     * @param  list<string>  $from
     * @param  list<string>  $to
     * @return list<Conversion>
     *
     * @throws BadInput for an unknown node, or when the conditions allow too many states to look at
     */
    public function cheapest(array $from, array $to): array
    {
        foreach (['to' => $to, 'from' => $from] as $field => $ends) {
            foreach ($ends as $n => $end) {
                isset($this->nodeFacts[$end]) ||
                    throw new BadInput('unknown-node', "There is no node \"$end\".", "/$field/$n");
            }
        }
        $goals = array_fill_keys($to, true);

        return array_map(function (string $start) use ($goals): Conversion {
            $label = $this->search($start, $goals, true);
            if ($label !== null) {
                return new Conversion($start, $label->node, $label->steps(), $label->total);
            }
            $free = $this->search($start, $goals, false);

            return new Conversion($start, null, [], 0.0, $free === null ? [] : $this->blocks($free));
        }, $from);
    }

    public function explored(): int
    {
        return $this->explored;
    }

    /**
     * @param  array<string, true>  $goals
     * @return Label|null the cheapest label that stands on a goal
     */
    private function search(string $start, array $goals, bool $heedConditions): ?Label
    {
        $queue = new LabelQueue();
        $queue->insert($first = new Label($start, $heedConditions ? $this->facts : [], 0.0, null, null), $first);
        $settled = [];
        while (! $queue->isEmpty()) {
            /** @var Label $label */
            $label = $queue->extract();
            $state = $label->state();
            if (isset($settled[$state])) {
                continue;
            }
            $settled[$state] = true;
            if (++$this->explored > self::LIMIT) {
                throw new BadInput(
                    'too-large',
                    'The steps allow more than '.self::LIMIT.' states; give fewer of them.',
                    '/steps',
                );
            }
            if (isset($goals[$label->node])) {
                return $label;
            }
            $inForce = $label->facts + array_fill_keys($this->nodeFacts[$label->node], true);
            foreach ($this->leaving[$label->node] ?? [] as $step) {
                if (
                    $heedConditions &&
                    (array_diff_key($step->requires, $inForce) !== [] ||
                        array_intersect_key($step->forbids, $inForce) !== [])
                ) {
                    continue;
                }
                $after = $heedConditions ? array_diff_key($label->facts + $step->gives, $step->takes) : [];
                $next = new Label($step->to, $after, $label->total + $step->weight($this->rate), $step, $label);
                isset($settled[$next->state()]) || $queue->insert($next, $next);
            }
        }

        return null;
    }

    /**
     * Conditions that stop the way that would be cheapest without conditions.
     *
     * @return list<array{step: string, rule: 'requires'|'forbids', fact: string, why: string}>
     */
    private function blocks(Label $free): array
    {
        $facts = $this->facts;
        $out = [];
        foreach ($free->steps() as $step) {
            $inForce = $facts + array_fill_keys($this->nodeFacts[$step->from], true);
            foreach (array_diff_key($step->requires, $inForce) as $fact => $why) {
                $out[] = ['step' => $step->id, 'rule' => 'requires', 'fact' => (string) $fact, 'why' => $why];
            }
            foreach (array_intersect_key($step->forbids, $inForce) as $fact => $why) {
                $out[] = ['step' => $step->id, 'rule' => 'forbids', 'fact' => (string) $fact, 'why' => $why];
            }
            $facts = array_diff_key($facts + $step->gives, $step->takes);
        }

        return $out;
    }
}
