<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Input;
use Yard\Core\Work\Graph;
use Yard\Core\Work\Operation;
use Yard\Core\Work\Plan;
use Yard\Core\Work\Reach;

/** work.plan: what can be done next on a unit, what waits, what is out of reach and the least work to get somewhere. */
final class WorkPlan implements Calculator
{
    private const DEFAULT_EFFORT = 1.0;

    public function calculate(Input $in): array
    {
        $graph = new Graph(array_map(self::operation(...), $in->list('operations')));
        $places = static fn (string $field): array => $in->has($field)
            ? $graph->placesOf($in->strings($field), "/$field")
            : [];
        $effort = $in->numberOr('effort', self::DEFAULT_EFFORT, above: 0.0, max: 100.0);
        $plan = Plan::of($graph, $places('done'), $places('jammed'), $effort);
        $reach = $in->has('target') ? $plan->reach($in->name('target')) : null;
        $left = $plan->left();
        $path = $plan->longestPath($left->set->places);
        $optimal = $left->optimal && ($reach === null || $reach->optimal);

        return [
            'order' => $graph->ids($graph->workable([])),
            'available' => $graph->ids($plan->available()),
            'waiting' => self::each($graph, $plan->waiting(), 'for'),
            'unreachable' => self::each($graph, $plan->unreachable(), 'because'),
            'hoursLeft' => $left->set->hours,
            'longestPath' => ['hours' => $path->hours, 'operations' => $graph->ids($path->places)],
            'optimal' => $optimal,
        ] +
            ($reach === null ? [] : ['reach' => self::reached($graph, $reach)]) +
            ($in->has('undo') ? ['reopened' => $graph->ids($plan->reopened($places('undo')))] : []) +
            ($optimal ? [] : ['bound' => ['hoursLeft' => $left->bound] + ($reach ? ['reach' => $reach->bound] : [])]);
    }

    private static function operation(Input $in): Operation
    {
        $strings = static fn (string $field): array => $in->has($field) ? $in->strings($field) : [];

        return new Operation(
            $in->name('id'),
            $strings('after'),
            $in->has('afterAny')
                ? array_map(static fn (Input $group): array => $group->asStrings(), $in->list('afterAny'))
                : [],
            $strings('removes'),
            $strings('renews'),
            $in->number('hours', min: 0.0, max: 10_000.0),
            $in->has('place') && $in->choice('place', ['vehicle', 'bench']) === 'vehicle',
            $in->has('alternative') && $in->bool('alternative'),
        );
    }

    /**
     * @param  array<int, list<int>>  $found
     * @return list<array<string, mixed>>
     */
    private static function each(Graph $graph, array $found, string $field): array
    {
        return array_map(
            static fn (int $n, array $others): array => [
                'id' => $graph->operations[$n]->id,
                $field => $graph->ids($others),
            ],
            array_keys($found),
            $found,
        );
    }

    /** @return array<string, mixed> */
    private static function reached(Graph $graph, Reach $reach): array
    {
        return $reach->possible
            ? [
                'possible' => true,
                'operations' => $graph->ids($reach->places),
                'hours' => $reach->hours,
                'inVehicle' => $reach->inVehicle,
                'renews' => $reach->renews,
            ]
            : ['possible' => false, 'because' => $graph->ids($reach->because)];
    }
}
