<?php

declare(strict_types=1);

namespace Yard\Core\Credit;

use Yard\Core\BadInput;

/** Core grade by the shop's own rules: the first rule whose conditions all hold decides. */
final readonly class Grading
{
    /** @param  list<array{grade: string, holds: bool, failedAt?: string}>  $considered  rules up to the deciding one */
    private function __construct(
        public Grade $grade,
        public string $reason,
        public int $rule,
        public array $considered,
    ) {
    }

    /**
     * @param  list<GradeRule>  $rules
     * @param  array<string, bool|float>  $facts
     *
     * @throws BadInput when no rule holds, or one asks for what there is not
     */
    public static function of(array $rules, array $facts): self
    {
        $considered = [];
        $decides = null;
        foreach ($rules as $i => $rule) {
            try {
                $failedAt = $rule->failsAt($facts);
            } catch (BadInput $e) {
                throw $e->under("/rules/$i");
            }
            if ($decides === null) {
                $considered[] =
                    ['grade' => $rule->grade->value, 'holds' => $failedAt === null] +
                    ($failedAt === null ? [] : ['failedAt' => $failedAt]);
                $decides = $failedAt === null ? $i : null;
            }
        }
        if ($decides === null) {
            throw new BadInput(
                'no-rule',
                'No rule holds for this core; the last rule should have no conditions.',
                '/rules',
            );
        }

        return new self($rules[$decides]->grade, $rules[$decides]->because($facts), $decides, $considered);
    }
}
