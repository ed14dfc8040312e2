<?php

namespace App\Stations\Teardown\Judges;

use App\Catalog\Models\FamilySpec;
use App\Kernel\OrderedRows;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Stations\Teardown\Actions\LoosePieces;
use App\Stations\Teardown\Actions\RecordFinding;
use App\Stations\Teardown\Models\Finding;
use App\Work\Answer;
use App\Work\Contracts\ConditionJudge;
use App\Work\ProofSpec;
use App\Work\Queries\BenchWork;
use Illuminate\Database\Eloquent\Builder;

/** A part is looked at: its condition, what becomes of it, whether it is the cause. */
final class GradedPart implements ConditionJudge
{
    public function __construct(private readonly RecordFinding $record, private readonly LoosePieces $pieces)
    {
    }

    public function open(BenchWork $work, array $proofs): array
    {
        $graded = self::findings($work)->pluck('part')->flip();
        $names = FamilySpec::query()
            ->where('family_id', $work->unit->family_id)
            ->where('kind', 'finding')
            ->pluck('name', 'code');
        $open = [];
        foreach ($proofs as $proof) {
            if (! isset($graded[$proof->of])) {
                $open[$proof->key()] = '"'.($names[$proof->of] ?? $proof->of).'" is not looked at yet.';
            }
        }

        return $open;
    }

    public function take(BenchWork $work, ProofSpec $proof, Answer $answer, Person $by): void
    {
        $this->record->record($work->unit, [
            'part' => $proof->of,
            'condition' => $answer->string('condition'),
            'disposition' => $answer->string('disposition'),
            'role' => $answer->string('role'),
            'ours' => filter_var($answer->body['ours'] ?? false, FILTER_VALIDATE_BOOLEAN),
            'plates' => self::plates($answer),
            'reading' => $answer->string('reading'),
            'gauge' => $answer->string('gauge'),
            'note' => $answer->note,
            'pieces' => $answer->string('pieces'),
            'route' => $answer->string('route'),
            'version' => (int) $answer->string('version'),
        ], $by, '/answer');
    }

    public function undo(BenchWork $work, ProofSpec $proof): void
    {
        self::findings($work)->where('part', $proof->of)->get()->each(function (Finding $f): void {
            OrderedRows::clear($f->plates());
            $this->pieces->forget($f);
            $f->delete();
        });
    }

    /** @return list<string> */
    private static function plates(Answer $answer): array
    {
        $plates = $answer->body['plates'] ?? [];
        if (! is_array($plates) || array_filter($plates, is_string(...)) !== $plates) {
            throw Refusal::at('/answer/plates', 'Grade the plates one by one, from the piston outwards.');
        }

        return array_values($plates);
    }

    /** @return Builder<Finding> */
    private static function findings(BenchWork $work): Builder
    {
        return Finding::query()->where('unit_id', $work->unit->id)->where('generation', $work->generation);
    }
}
