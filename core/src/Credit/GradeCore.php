<?php

declare(strict_types=1);

namespace Yard\Core\Credit;

use Yard\Core\Calculator;
use Yard\Core\Input;

/**
 * Core grade by the shop's own rules, given as data: the first rule whose conditions all hold decides. A condition is
 * a fact (true or false), factAtLeast or factAtMost (numbers); the reason may quote facts in braces.
 */
final class GradeCore implements Calculator
{
    public function calculate(Input $in): array
    {
        $facts = [];
        foreach ($in->map('facts') as $name => $value) {
            $facts[(string) $name] = is_bool($value->raw()) ? $value->raw() : $value->asNumber();
        }
        $considered = [];
        $decided = null;
        foreach ($in->list('rules', 1) as $i => $rule) {
            $grade = $rule->choice('grade', CoreCredit::GRADES);
            $reason = $rule->string('reason');
            $failed = null;
            foreach ($rule->map('when') as $condition => $wanted) {
                // Every condition is read, so that a misspelt one is refused on whatever core comes first.
                $failed = self::holds((string) $condition, $wanted, $facts)
                    ? $failed
                    : $failed ?? (string) $condition;
            }
            if ($decided === null) {
                $considered[] =
                    ['grade' => $grade, 'holds' => $failed === null] +
                    ($failed === null ? [] : ['failedAt' => $failed]);
                $decided =
                    $failed === null
                        ? ['grade' => $grade, 'reason' => self::quote($reason, $facts), 'rule' => $i]
                        : null;
            }
        }
        if ($decided !== null) {
            return $decided + ['considered' => $considered];
        }
        throw $in
            ->at('rules')
            ->fail('no-rule', 'No rule holds for this core; the last rule should have no conditions.');
    }

    /** @param  array<string, bool|float>  $facts */
    private static function holds(string $condition, Input $wanted, array $facts): bool
    {
        $fact = (string) preg_replace('/At(Least|Most)$/', '', $condition);
        if (! isset($facts[$fact])) {
            throw $wanted->fail('unknown-fact', "There is no fact \"$fact\".");
        }
        if ($fact === $condition) {
            return $facts[$fact] === $wanted->raw();
        }
        if (is_bool($facts[$fact])) {
            throw $wanted->fail('type', "The fact \"$fact\" is true or false and has no least or most.");
        }

        return str_ends_with($condition, 'AtLeast')
            ? $facts[$fact] >= $wanted->asNumber()
            : $facts[$fact] <= $wanted->asNumber();
    }

    /** @param  array<string, bool|float>  $facts */
    private static function quote(string $reason, array $facts): string
    {
        foreach ($facts as $name => $value) {
            $reason = str_replace(
                '{'.$name.'}',
                is_bool($value)
                    ? ($value
                        ? 'yes'
                        : 'no')
                    : (floor($value) === $value
                        ? (string) (int) $value
                        : number_format($value, 2, '.', '')),
                $reason,
            );
        }

        return $reason;
    }
}
