<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Input;
use Yard\Core\Life\Lives;
use Yard\Core\Life\LogRank;

/** life.logrank: whether groups of units fail alike. */
final class LifeLogrank implements Calculator
{
    public function calculate(Input $in): array
    {
        $lives = [];
        foreach ($in->list('groups', 2) as $group) {
            $name = $group->name('name');
            if (isset($lives[$name])) {
                throw $group->at('name')->fail('duplicate', "The group \"$name\" is listed twice.");
            }
            $lives[$name] = Lives::read($group);
        }
        if (count($lives) > 50) {
            throw $in->at('groups')->fail('too-many', 'No more than 50 groups at once.');
        }
        $test = $in->within(static fn (): LogRank => LogRank::of($lives));

        return [
            'chisq' => $test->chiSquare,
            'df' => $test->degrees,
            'p' => $test->p(),
            'groups' => array_map(
                static fn (int|string $name, array $g): array => ['name' => (string) $name] + $g,
                array_keys($test->groups),
                $test->groups,
            ),
        ];
    }
}
