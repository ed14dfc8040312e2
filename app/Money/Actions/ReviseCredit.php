<?php

namespace App\Money\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Money\Queries\CreditPrice;
use App\Money\Queries\GradeProposal;
use App\Shop\Models\Person;
use App\Yard\Contracts\HardPartLosses;
use App\Yard\Models\Unit;

/** One later revision of the credit, after teardown has shown which hard parts live: with its reason, and only once. */
final class ReviseCredit
{
    public function __construct(
        private readonly Ledger $ledger,
        private readonly CreditPrice $credit,
        private readonly GradeProposal $grade,
        private readonly HardPartLosses $lost,
    ) {
    }

    /**
     * @return array{grade: string, gradeReason: string, credit: float, lines: list<array<string, mixed>>,
     *     lostParts: list<string>} what a revision would give
     */
    public function preview(Unit $unit): array
    {
        $lost = $this->lost->of($unit);
        $failed = array_map(
            fn (string $p) => ['part' => $p],
            array_values(array_unique([...array_column($unit->failed_hard, 'part'), ...$lost])),
        );
        $grade = $this->grade->of(
            $unit->variant,
            $unit->family_id,
            $unit->missing,
            $failed,
            (float) $unit->repair_hours,
            $unit->flags,
        );
        $credit = $this->credit->of(
            $unit->variant,
            $unit->family_id,
            $unit->missing,
            $failed,
            (float) $unit->repair_hours,
            $grade['grade'],
        );

        return [
            'grade' => $grade['grade'],
            'gradeReason' => $grade['reason'],
            'credit' => $credit['credit'],
            'lines' => $credit['lines'],
            'lostParts' => $lost,
        ];
    }

    public function revise(Unit $unit, string $reason, int $version, Person $by): void
    {
        \App\Yard\Gatekeeper::unchanged($unit, $version, 'this core', ['reason' => $reason]);
        if ($unit->credit_revision !== null) {
            throw new Refusal(
                'The credit of this core was already revised once; a second revision is not given.',
                409,
            );
        }
        if (! $this->lost->tornDown($unit)) {
            throw new Refusal('The credit is revised after teardown, when the hard parts have been looked at.', 409);
        }
        $new = $this->preview($unit);
        $unit->update([
            'credit_revision' => [
                'before' => (float) $unit->credit,
                'linesBefore' => $unit->credit_lines,
                'gradeBefore' => $unit->grade,
                'reason' => $reason,
                'lostParts' => $new['lostParts'],
                'by' => $by->name,
                'at' => now()->toIso8601ZuluString(),
            ],
            'grade' => $new['grade'],
            'grade_reason' => $new['gradeReason'],
            'credit' => $new['credit'],
            'credit_lines' => $new['lines'],
            'version' => $unit->version + 1,
        ]);
        $this->ledger->onUnit($unit, 'credit.revised', [
            'reason' => $reason,
            'credit' => $new['credit'],
            'grade' => $new['grade'],
            'lostParts' => $new['lostParts'],
        ]);
    }
}
