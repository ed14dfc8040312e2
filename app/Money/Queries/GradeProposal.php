<?php

namespace App\Money\Queries;

use App\Catalog\Models\Vocabulary;
use Yard\Core\Calculators;

/** The grade the house's rules give a core, with the credit that follows from it. */
final class GradeProposal
{
    public const FLAGS = ['caseBroken', 'wrongUnit'];

    public function __construct(private readonly CreditPrice $credit)
    {
    }

    /**
     * @param  list<array{part: string, count?: int}>  $missing
     * @param  list<array{part: string}>  $failedHard
     * @param  list<string>  $flags
     * @return array{grade: string, reason: string}
     */
    public function of(
        ?\App\Catalog\Models\Variant $variant,
        ?int $familyId,
        array $missing,
        array $failedHard,
        float $repairHours,
        array $flags,
    ): array {
        $priced = $this->credit->of($variant, $familyId, $missing, $failedHard, $repairHours, 'D');
        $missingLines = array_filter($priced['lines'], fn (array $l) => $l['kind'] === 'missing-part');
        $floor = array_filter($priced['lines'], fn (array $l) => $l['kind'] === 'scrap-floor');
        $result = Calculators::run(
            'receive.grade',
            (object) [
                'rules' => Vocabulary::body('core-grading')->rules,
                'facts' => (object) ([
                    'missing' => (int) array_sum(array_column($missingLines, 'quantity')),
                    'missingValue' => -round(array_sum(array_column($missingLines, 'amount')), 2),
                    'failedHard' => count($failedHard),
                    'repairHours' => $repairHours,
                    'creditAtMostScrap' => $familyId !== null && $floor !== [],
                ] +
                        array_combine(
                            self::FLAGS,
                            array_map(fn (string $f) => in_array($f, $flags, true), self::FLAGS),
                        )),
            ],
        );

        return ['grade' => $result['grade'], 'reason' => $result['reason']];
    }
}
