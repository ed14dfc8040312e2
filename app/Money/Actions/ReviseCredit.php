<?php

namespace App\Money\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Money\CoreState;
use App\Money\Queries\CreditPrice;
use App\Money\Queries\GradeProposal;
use App\Money\RevisedCredit;
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

    /** What a revision would give. */
    public function preview(Unit $unit): RevisedCredit
    {
        $lost = $this->lost->of($unit);
        $core = CoreState::ofUnit($unit)->without($lost);
        $grading = $this->grade->of($core);

        return new RevisedCredit($grading, $this->credit->of($core, $grading->grade), $lost);
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
                'gradeBefore' => $unit->grade,
                'reason' => $reason,
                'lostParts' => $new->lostParts,
                'by' => $by->name,
                'at' => now()->toIso8601ZuluString(),
            ],
            'grade' => $new->grading->grade->value,
            'grade_reason' => $new->grading->reason,
            'credit' => $new->credit->amount(),
            'version' => $unit->version + 1,
        ]);
        WriteCredit::lines($unit, $new->credit);
        $this->ledger->onUnit($unit, 'credit.revised', [
            'reason' => $reason,
            'credit' => $new->credit->amount(),
            'lines' => $new->lines(),
            'grade' => $new->grading->grade->value,
            'lostParts' => $new->lostParts,
        ]);
    }
}
