<?php

declare(strict_types=1);

namespace Yard\Core\Credit;

use Yard\Core\BadInput;
use Yard\Core\Input;

/**
 * One rule of the house: the grade it gives when all its conditions hold. A condition is a fact (true, false or a
 * number), factAtLeast or factAtMost; the reason may quote facts in braces.
 */
final readonly class GradeRule
{
    /** @param  array<string, bool|float>  $when */
    public function __construct(public Grade $grade, public string $reason, public array $when)
    {
    }

    public static function read(Input $in): self
    {
        $when = [];
        foreach ($in->map('when') as $condition => $wanted) {
            $when[(string) $condition] = is_bool($wanted->raw()) ? $wanted->raw() : $wanted->asNumber();
        }

        return new self(Grade::from($in->choice('grade', Grade::letters())), $in->string('reason'), $when);
    }

    /**
     * @param  array<string, bool|float>  $facts
     * @return string|null the first condition that fails
     *
     * @throws BadInput for a condition that asks for what there is not; every one is read, so that a misspelt
     *     condition is refused on whatever core comes first
     */
    public function failsAt(array $facts): ?string
    {
        $failed = null;
        foreach ($this->when as $condition => $wanted) {
            if (! self::holds($condition, $wanted, $facts)) {
                $failed ??= $condition;
            }
        }

        return $failed;
    }

    /** @param  array<string, bool|float>  $facts */
    public function because(array $facts): string
    {
        $words = [];
        foreach ($facts as $name => $value) {
            $words['{'.$name.'}'] = match (true) {
                is_bool($value) => $value ? 'yes' : 'no',
                floor($value) === $value => (string) (int) $value,
                default => number_format($value, 2, '.', ''),
            };
        }

        return strtr($this->reason, $words);
    }

    /** @param  array<string, bool|float>  $facts */
    private static function holds(string $condition, bool|float $wanted, array $facts): bool
    {
        $fact = (string) preg_replace('/At(Least|Most)$/', '', $condition);
        $at = '/when/'.$condition;
        $have = $facts[$fact] ?? throw new BadInput('unknown-fact', "There is no fact \"$fact\".", $at);
        if (is_bool($have) !== is_bool($wanted)) {
            $kind = is_bool($have) ? 'true or false' : 'a number';
            throw new BadInput('type', "The fact \"$fact\" is $kind; the condition must be too.", $at);
        }
        if ($fact === $condition) {
            return $have === $wanted;
        }
        if (is_bool($have)) {
            throw new BadInput('type', "The fact \"$fact\" is true or false and has no least or most.", $at);
        }

        return str_ends_with($condition, 'AtLeast') ? $have >= $wanted : $have <= $wanted;
    }
}
