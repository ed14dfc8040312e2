<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Input;
use Yard\Core\Interchange\Conversion;
use Yard\Core\Interchange\PathSearch;
use Yard\Core\Interchange\Step;

/** interchange.path: the cheapest way to make one unit into another. */
final class InterchangePath implements Calculator
{
    public function calculate(Input $in): array
    {
        $rate = $in->numberOr('rate', 0.0, min: 0.0);
        $nodes = [];
        foreach ($in->list('nodes', 1) as $node) {
            $id = $node->name('id');
            if (isset($nodes[$id])) {
                throw $node->at('id')->fail('duplicate', "The node \"$id\" is listed twice.");
            }
            $nodes[$id] = $node->strings('facts');
        }
        $search = new PathSearch(
            $nodes,
            array_map(Step::read(...), $in->list('steps')),
            $in->strings('facts'),
            $rate,
        );
        [$to, $from] = array_map(
            static fn (string $field): array => array_map(
                static fn (Input $end): string => $end->asString(),
                $in->list($field, 1),
            ),
            ['to', 'from'],
        );
        $paths = $search->cheapest($from, $to);
        $best = null;
        foreach ($paths as $path) {
            $best = $path->found() && ($best === null || $path->total < $best->total) ? $path : $best;
        }

        return [
            'found' => $best !== null,
            'paths' => array_map(self::written(...), $paths),
            'explored' => $search->explored(),
        ] + ($best === null ? [] : ['best' => self::written($best)]);
    }

    /** @return array<string, mixed> */
    private static function written(Conversion $path): array
    {
        return $path->found()
            ? [
                'from' => $path->from,
                'found' => true,
                'to' => $path->to,
                'steps' => $path->stepIds(),
                'cost' => $path->cost(),
                'hours' => $path->hours(),
                'total' => $path->total,
            ]
            : ['from' => $path->from, 'found' => false, 'blockedBy' => $path->blockedBy];
    }
}
