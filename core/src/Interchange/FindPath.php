<?php

declare(strict_types=1);

namespace Yard\Core\Interchange;

use Yard\Core\Calculator;
use Yard\Core\Input;

/**
 * Cheapest chain of conversion steps from each start to any goal: exact shortest path by Dijkstra's label setting
 * (Dijkstra, "A note on two problems in connexion with graphs", Numerische Mathematik 1, 1959) over states (node, facts
 * in force). A step may require or forbid facts, and may give or take facts; its weight is cost + hours x rate, never
 * negative.
 */
final class FindPath implements Calculator
{
    /** States looked at before a search is called too large. */
    private const LIMIT = 200_000;

    /** @var array<string, list<Step>> node => steps leaving it */
    private array $leaving = [];

    /** @var array<string, list<string>> node => its facts that some step asks for */
    private array $nodeFacts = [];

    private int $explored = 0;

    public function calculate(Input $in): array
    {
        $rate = $in->has('rate') ? $in->number('rate', min: 0.0) : 0.0;
        $nodes = [];
        foreach ($in->list('nodes', 1) as $node) {
            $id = $node->name('id');
            if (isset($nodes[$id])) {
                throw $node->at('id')->fail('duplicate', "The node \"$id\" is listed twice.");
            }
            $nodes[$id] = array_map(
                static fn (Input $f): string => $f->asString(),
                $node->optional('facts')?->asList() ?? [],
            );
        }
        $asked = $ids = [];
        foreach ($in->list('steps') as $item) {
            $step = Step::read($item, $rate);
            foreach (['from' => $step->from, 'to' => $step->to] as $field => $end) {
                if (! isset($nodes[$end])) {
                    throw $item->at($field)->fail('unknown-node', "There is no node \"$end\".");
                }
            }
            if (isset($ids[$step->id])) {
                throw $item->at('id')->fail('duplicate', "The step \"$step->id\" is listed twice.");
            }
            $ids[$step->id] = true;
            $asked += $step->requires + $step->forbids;
            $this->leaving[$step->from][] = $step;
        }
        foreach ($nodes as $id => $facts) {
            $this->nodeFacts[$id] = array_values(
                array_filter($facts, static fn (string $f): bool => isset($asked[$f])),
            );
        }
        $facts = [];
        foreach ($in->optional('facts')?->asList() ?? [] as $fact) {
            isset($asked[$fact->asString()]) && ($facts[$fact->asString()] = true);
        }
        $goals = [];
        foreach ($in->list('to', 1) as $goal) {
            isset($nodes[$goal->asString()]) ||
                throw $goal->fail('unknown-node', "There is no node \"{$goal->asString()}\".");
            $goals[$goal->asString()] = true;
        }

        $paths = [];
        $best = null;
        foreach ($in->list('from', 1) as $start) {
            isset($nodes[$start->asString()]) ||
                throw $start->fail('unknown-node', "There is no node \"{$start->asString()}\".");
            $path = $this->search($start->asString(), $goals, $facts, true);
            if ($path === null) {
                $free = $this->search($start->asString(), $goals, $facts, false);
                $paths[] = [
                    'from' => $start->asString(),
                    'found' => false,
                    'blockedBy' => $free === null ? [] : $this->blocks($free, $facts),
                ];

                continue;
            }
            $row = ['from' => $start->asString(), 'found' => true] + $this->written($path);
            $paths[] = $row;
            if ($best === null || $row['total'] < $best['total']) {
                $best = $row;
            }
        }

        return ['found' => $best !== null, 'paths' => $paths, 'explored' => $this->explored] +
            ($best === null ? [] : ['best' => $best]);
    }

    /**
     * @param  array<string, true>  $goals
     * @param  array<string, true>  $facts
     * @return Label|null the cheapest label that stands on a goal
     */
    private function search(string $start, array $goals, array $facts, bool $heedConditions): ?Label
    {
        $queue = new LabelQueue();
        $queue->insert($first = new Label($start, $heedConditions ? $facts : [], 0.0, null, null), $first);
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
                throw new \Yard\Core\BadInput(
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
                $next = new Label($step->to, $after, $label->total + $step->weight, $step, $label);
                isset($settled[$next->state()]) || $queue->insert($next, $next);
            }
        }

        return null;
    }

    /** @return array{to: string, steps: list<string>, cost: float, hours: float, total: float} */
    private function written(Label $label): array
    {
        $steps = $label->steps();

        return [
            'to' => $label->node,
            'steps' => array_map(static fn (Step $s): string => $s->id, $steps),
            'cost' => array_sum(array_map(static fn (Step $s): float => $s->cost, $steps)),
            'hours' => array_sum(array_map(static fn (Step $s): float => $s->hours, $steps)),
            'total' => $label->total,
        ];
    }

    /**
     * Conditions that stop the way that would be cheapest without conditions.
     *
     * @param  array<string, true>  $facts
     * @return list<array{step: string, rule: 'requires'|'forbids', fact: string, why: string}>
     */
    private function blocks(Label $free, array $facts): array
    {
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
