<?php

namespace App\Stations\Teardown\Actions;

use App\Catalog\Models\FamilySpec;
use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Stations\Teardown\FindingSpec;
use App\Stations\Teardown\Models\Finding;
use App\Stations\Teardown\Models\SecondGrade;
use App\Work\Generation;
use App\Yard\Models\Unit;

/** A second person grades a part without being told the first grade. */
final class GradeAgain
{
    public function __construct(private readonly Ledger $ledger)
    {
    }

    public function grade(Unit $unit, string $part, string $condition, Person $by): SecondGrade
    {
        $generation = Generation::of($unit, 'teardown');
        $row = ['unit_id' => $unit->id, 'generation' => $generation, 'part' => $part];
        $first =
            Finding::query()->where($row)->where('second_due', true)->first() ??
            throw new Refusal('No second grade is due on this part.', 404);
        if ($first->found_by === $by->id) {
            throw new Refusal('You graded this part first: the second grade is for somebody else.', 409);
        }
        $entry = FamilySpec::query()
            ->where('family_id', $unit->family_id)
            ->where('kind', 'finding')
            ->where('code', $part)
            ->firstOrFail();
        $spec = FindingSpec::read($entry->name, $entry->body);
        $spec->grade($condition, '/condition');
        $grade = SecondGrade::create($row + [
            'part_kind' => $spec->kind,
            'first_condition' => $first->condition,
            'second_condition' => $condition,
            'first_by' => $first->found_by,
            'graded_by' => $by->id,
            'graded_at' => now(),
        ]);
        $first->update(['second_due' => false]);
        $this->ledger->onUnit($unit, 'finding.graded-again', ['part' => $part, 'condition' => $condition]);

        return $grade;
    }
}
