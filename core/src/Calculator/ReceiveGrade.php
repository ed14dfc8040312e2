<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Credit\GradeRule;
use Yard\Core\Credit\Grading;
use Yard\Core\Input;

/** receive.grade: the grade of a core by the shop's own rules, given as data. */
final class ReceiveGrade implements Calculator
{
    public function calculate(Input $in): array
    {
        $facts = [];
        foreach ($in->map('facts') as $name => $value) {
            $facts[(string) $name] = is_bool($value->raw()) ? $value->raw() : $value->asNumber();
        }
        $grading = Grading::of(array_map(GradeRule::read(...), $in->list('rules', 1)), $facts);

        return [
            'grade' => $grading->grade->value,
            'reason' => $grading->reason,
            'rule' => $grading->rule,
            'considered' => $grading->considered,
        ];
    }
}
