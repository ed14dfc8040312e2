<?php

namespace App\Money\Queries;

use App\Catalog\Models\Vocabulary;
use App\Money\CoreState;
use Yard\Core\Credit\CreditLine;
use Yard\Core\Credit\Grade;
use Yard\Core\Credit\GradeRule;
use Yard\Core\Credit\Grading;
use Yard\Core\Input;

/** The grade the house's rules give a core, with the credit that follows from it. */
final class GradeProposal
{
    public const FLAGS = ['caseBroken', 'wrongUnit'];

    public function __construct(private readonly CreditPrice $credit)
    {
    }

    public function of(CoreState $core): Grading
    {
        $credit = $this->credit->of($core, Grade::D);
        $lost = $credit->linesOf('missing-part');
        $facts = [
            'missing' => (float) array_sum(array_column($lost, 'quantity')),
            'missingValue' => -array_sum(array_map(fn (CreditLine $l) => $l->cents, $lost)) / 100.0,
            'failedHard' => (float) count($core->failedHard),
            'repairHours' => $core->repairHours,
            'creditAtMostScrap' => $core->familyId !== null && $credit->atFloor(),
        ];
        foreach (self::FLAGS as $flag) {
            $facts[$flag] = in_array($flag, $core->flags, true);
        }

        return Grading::of(self::rules(), $facts);
    }

    /** @return list<GradeRule> */
    private static function rules(): array
    {
        return array_map(GradeRule::read(...), Input::of(Vocabulary::body('core-grading'))->list('rules'));
    }
}
