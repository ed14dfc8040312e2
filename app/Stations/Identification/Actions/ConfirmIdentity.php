<?php

namespace App\Stations\Identification\Actions;

use App\Catalog\Models\Variant;
use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Money\Actions\OweCore;
use App\Money\Actions\WriteCredit;
use App\Money\CoreState;
use App\Money\Queries\CreditPrice;
use App\Money\Queries\GradeProposal;
use App\Shop\Models\Person;
use App\Stations\Identification\Models\Identification;
use App\Stations\Identification\Queries\FieldLearning;
use App\Stations\Identification\Queries\VariantRanking;
use App\Yard\Actions\PlaceHold;
use App\Yard\Gatekeeper;
use App\Yard\Models\Unit;
use App\Yard\StationName;
use Yard\Core\Credit\Grade;

/**
 * A person decides which variant a core is; the probability at that moment is kept. Nothing is ever picked silently.
 */
final class ConfirmIdentity
{
    public function __construct(
        private readonly Ledger $ledger,
        private readonly VariantRanking $rank,
        private readonly CreditPrice $credit,
        private readonly PlaceHold $hold,
        private readonly OweCore $owe,
        private readonly GradeProposal $grade,
    ) {
    }

    /** @param  list<string>  $foreignParts clues whose part belongs to another variant, or parts in words */
    public function confirm(Unit $unit, string $variantCode, array $foreignParts, string $note, Person $by): void
    {
        Gatekeeper::at($unit, StationName::Identification);
        $variant =
            Variant::query()->where('code', $variantCode)->where('family_id', $unit->family_id)->first() ??
            throw Refusal::at('/variant', "There is no variant \"$variantCode\" in this family.");
        [$ranking, $model, $answers] = $this->rank->ranked(
            $unit,
            $unit->family ?? throw Refusal::at('/variant', 'Set the family at receiving first.'),
        );
        $posterior = array_column($ranking->hypotheses, 'posterior', 'id')[$variantCode];
        self::mustBeReasoned($posterior, $note);
        $foreignParts = self::foreign($foreignParts, $model->aliens($ranking, $variantCode, $answers));
        Identification::create([
            'unit_id' => $unit->id,
            'answers' => (object) $answers,
            'outcome' => 'confirmed',
            'variant_id' => $variant->id,
            'posterior' => round($posterior, 8),
            'mixed' => $foreignParts !== [],
            'foreign_parts' => $foreignParts,
            'note' => $note,
            'decided_by' => $by->id,
            'decided_at' => now(),
        ]);
        $before = (float) $unit->credit;
        $credit = $this->regrade($unit, $variant);
        $this->ledger->onUnit($unit, 'identification.confirmed', [
            'variant' => $variantCode,
            'posterior' => $posterior,
            'foreignParts' => $foreignParts,
            'note' => $note,
            'creditBefore' => $before,
            'credit' => $credit,
        ]);
        $this->owe->settle($unit);
        FieldLearning::forget($unit->knownFamily()->id);
        $unit->moveTo(Gatekeeper::next($unit, StationName::Identification));
    }

    private static function mustBeReasoned(float $posterior, string $note): void
    {
        if ($posterior < 0.5 && trim($note) === '') {
            $percent = round(100 * $posterior);
            throw Refusal::at('/note', "The clues speak against this variant ($percent %); say why you confirm it.");
        }
    }

    /**
     * @param  list<string>  $parts  clues whose part belongs to another variant, or parts in words
     * @param  list<array<string, mixed>>  $aliens  what the clues show to be foreign
     * @return list<array<string, mixed>>
     */
    private static function foreign(array $parts, array $aliens): array
    {
        $known = array_column($aliens, null, 'feature');

        return array_map(
            fn (string $p) => $known[$p] ?? [
                'feature' => null,
                'part' => $p,
                'seen' => null,
                'from' => [],
                'ordering' => '',
            ],
            $parts,
        );
    }

    /**
     * The rules graded by the family's lowest core charge; with the variant known they grade again, unless a person had
     * overruled them.
     *
     * @return float the credit
     */
    private function regrade(Unit $unit, Variant $variant): float
    {
        $core = CoreState::ofUnit($unit)->as($variant);
        $regraded = $this->grade->of($core);
        $overruled = $unit->grade !== $unit->proposed_grade;
        $grade = $overruled ? Grade::from($unit->grade) : $regraded->grade;
        $credit = $this->credit->of($core, $grade);
        $unit->update([
            'variant_id' => $variant->id,
            'identified_at' => now(),
            'credit' => $credit->amount(),
            'grade' => $grade->value,
            'grade_reason' => $overruled ? $unit->grade_reason : $regraded->reason,
            'proposed_grade' => $regraded->grade->value,
            'version' => $unit->version + 1,
        ]);
        WriteCredit::lines($unit, $credit);

        return $credit->amount();
    }

    public function markUnknown(Unit $unit, string $note, Person $by): void
    {
        Gatekeeper::at($unit, StationName::Identification);
        Identification::create([
            'unit_id' => $unit->id,
            'outcome' => 'unknown',
            'note' => $note,
            'decided_by' => $by->id,
            'decided_at' => now(),
        ]);
        $this->ledger->onUnit($unit, 'identification.unknown', ['note' => $note]);
        $this->hold->place(
            $unit,
            'unknown-variant',
            'The variant could not be found out'.($note === '' ? '.' : ": $note."),
            $by,
        );
    }
}
