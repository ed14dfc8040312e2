<?php

namespace App\Stations\Identification\Actions;

use App\Catalog\Models\Variant;
use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Money\Actions\OweCore;
use App\Money\Queries\CreditPrice;
use App\Money\Queries\GradeProposal;
use App\Shop\Models\Person;
use App\Stations\Identification\Models\ClueAnswer;
use App\Stations\Identification\Models\Identification;
use App\Stations\Identification\Queries\FieldLearning;
use App\Stations\Identification\Queries\VariantRanking;
use App\Yard\Actions\PlaceHold;
use App\Yard\Gatekeeper;
use App\Yard\Models\Unit;
use App\Yard\StationName;

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
        $ranked = $this->rank->of(
            $unit,
            $unit->family ?? throw Refusal::at('/variant', 'Set the family at receiving first.'),
        );
        $row = array_column($ranked['ranking'], null, 'variant')[$variantCode];
        if ($row['posterior'] < 0.5 && trim($note) === '') {
            throw Refusal::at(
                '/note',
                'The clues speak against this variant ('.
                    round(100 * $row['posterior']).
                    ' %); say why you confirm it.',
            );
        }
        [$features] = VariantRanking::model($unit->family);
        $answers = ClueAnswer::query()->where('unit_id', $unit->id)->get()->keyBy('feature');
        $aliens = array_column(
            VariantRanking::aliens(
                array_map(fn (array $r) => ['id' => $r['variant']] + $r, $ranked['ranking']),
                $variantCode,
                $features,
                $answers,
            ),
            null,
            'feature',
        );
        $foreignParts = array_map(
            fn (string $p) => $aliens[$p] ?? [
                'feature' => null,
                'part' => $p,
                'seen' => null,
                'from' => [],
                'ordering' => '',
            ],
            $foreignParts,
        );
        Identification::create([
            'unit_id' => $unit->id,
            'answers' => (object) $answers->map(fn (ClueAnswer $a) => $a->value)->all(),
            'outcome' => 'confirmed',
            'variant_id' => $variant->id,
            'posterior' => round($row['posterior'], 8),
            'mixed' => $foreignParts !== [],
            'foreign_parts' => $foreignParts,
            'note' => $note,
            'decided_by' => $by->id,
            'decided_at' => now(),
        ]);
        // The rules graded by the family's lowest core charge; with the variant known they grade again, unless a person
        // had overruled them.
        $regraded = $this->grade->of(
            $variant,
            $unit->family_id,
            $unit->missing,
            $unit->failed_hard,
            (float) $unit->repair_hours,
            $unit->flags,
        );
        $grading =
            $unit->grade === $unit->proposed_grade
                ? ['grade' => $regraded['grade'], 'grade_reason' => $regraded['reason']]
                : [];
        $grading['proposed_grade'] = $regraded['grade'];
        $credit = $this->credit->of(
            $variant,
            $unit->family_id,
            $unit->missing,
            $unit->failed_hard,
            (float) $unit->repair_hours,
            $grading['grade'] ?? $unit->grade,
        );
        $before = (float) $unit->credit;
        $unit->update(
            [
                'variant_id' => $variant->id,
                'identified_at' => now(),
                'credit' => $credit['credit'],
                'credit_lines' => $credit['lines'],
                'version' => $unit->version + 1,
            ] + $grading,
        );
        $this->ledger->onUnit($unit, 'identification.confirmed', [
            'variant' => $variantCode,
            'posterior' => $row['posterior'],
            'foreignParts' => $foreignParts,
            'note' => $note,
            'creditBefore' => $before,
            'credit' => $credit['credit'],
        ]);
        $this->owe->settle($unit);
        FieldLearning::forget($unit->knownFamily()->id);
        $unit->moveTo(Gatekeeper::next($unit, StationName::Identification));
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
