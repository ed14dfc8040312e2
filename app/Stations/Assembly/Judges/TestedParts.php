<?php

namespace App\Stations\Assembly\Judges;

use App\Kernel\Refusal;
use App\Shop\Models\Gauge;
use App\Shop\Models\Person;
use App\Stations\Assembly\Actions\RecordMeasurement;
use App\Stations\Assembly\Models\Measurement;
use App\Stations\Assembly\Queries\AssemblyRecord;
use App\Stations\Assembly\Queries\AssemblyRecords;
use App\Work\Answer;
use App\Work\BenchTest;
use App\Work\Contracts\ValuesJudge;
use App\Work\Place;
use App\Work\ProofSpec;
use App\Work\Queries\BenchWork;
use App\Work\ReadingKind;

/** All tests of a group taken in one go: each inside its window, with a gauge that may be believed. */
final class TestedParts implements ValuesJudge
{
    private const KIND = ReadingKind::BenchTest;

    public function __construct(
        private readonly RecordMeasurement $record,
        private readonly AssemblyRecords $records,
    ) {
    }

    public function open(BenchWork $work, array $proofs): array
    {
        $build = $work->build() ?? throw new Refusal('This unit has no released build yet.', 409);
        $record = $this->records->of($work);
        $open = [];
        foreach ($proofs as $proof) {
            foreach (BenchTest::ofGroup($build->frozen(), $proof->of) as $test) {
                $against = self::missing($test, $record);
                if ($against !== null) {
                    $open[$proof->key()] = "\"$test->name\"$against";
                    break;
                }
            }
        }

        return $open;
    }

    public function take(BenchWork $work, ProofSpec $proof, Answer $answer, Person $by): void
    {
        $build = $work->build() ?? throw new Refusal('This unit has no released build yet.', 409);
        $tests = BenchTest::ofGroup($build->frozen(), $proof->of);
        $read = $values = [];
        foreach ($tests as $test) {
            $read[$test->code] = $test->isDerived()
                ? $test->reckoned($values)
                : $test->reading($answer->string($test->code), $answer->string('temperature'));
            $values[$test->code] = $read[$test->code]->in($test->unit);
        }
        foreach ($tests as $test) {
            $gauge = $test->isDerived()
                ? null
                : Gauge::thatShowed($answer->string('gauge'), $test->quantity(), $read[$test->code], '/answer');
            $place = Place::of($build, self::KIND, $test->code);
            $this->record->keep($build, $place, $read[$test->code], $gauge, $answer, $by);
        }
    }

    public function undo(BenchWork $work, ProofSpec $proof): void
    {
        $build = $work->build();
        $codes = $build === null
            ? []
            : array_map(fn (BenchTest $t) => $t->code, BenchTest::ofGroup($build->frozen(), $proof->of));
        Measurement::query()
            ->where('build_id', $build?->id)
            ->where('kind', self::KIND)
            ->whereIn('code', $codes)
            ->whereNull('undone_at')
            ->get()
            ->each(fn (Measurement $m) => $m->update(['undone_at' => now()]));
    }

    /** @return string|null follows the name of the test */
    private static function missing(BenchTest $test, AssemblyRecord $record): ?string
    {
        $taken = $record->readings[self::KIND->value][$test->code] ?? [];
        $last = end($taken) ?: null;

        return $last === null
            ? ' is not tested.'
            : SoundReading::against(self::KIND->inWords(), $last, $record->gaugeOf($last));
    }
}
