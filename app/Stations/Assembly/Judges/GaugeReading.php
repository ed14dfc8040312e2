<?php

namespace App\Stations\Assembly\Judges;

use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Stations\Assembly\Actions\RecordMeasurement;
use App\Stations\Assembly\Models\Measurement;
use App\Stations\Assembly\Queries\AssemblyRecord;
use App\Stations\Assembly\Queries\AssemblyRecords;
use App\Work\Answer;
use App\Work\Contracts\ReadingJudge;
use App\Work\ProofSpec;
use App\Work\Queries\BenchWork;
use App\Work\ReadingKind;
use App\Yard\Contracts\DynoRecord;
use Illuminate\Support\Carbon;

/** A number off a gauge: inside its window, the gauge in date, taken after what made it doubtful. */
final class GaugeReading implements ReadingJudge
{
    public function __construct(
        private readonly RecordMeasurement $record,
        private readonly AssemblyRecords $records,
        private readonly DynoRecord $dyno,
    ) {
    }

    public function open(BenchWork $work, array $proofs): array
    {
        $build = $work->build() ?? throw new Refusal('This unit has no released build yet.', 409);
        $record = $this->records->of($work);
        $reopened = $this->dyno->failedElement($build);
        $open = [];
        foreach ($proofs as $proof) {
            $places = array_column($proof->reading()->places($build->frozen()), null, 'code');
            $place = $places[$proof->place()] ?? ['name' => $proof->of];
            $against = $this->missing($proof->reading(), $place, $record, $reopened);
            if ($against !== null) {
                $open[$proof->key()] = "\"{$place['name']}\"$against";
            }
        }

        return $open;
    }

    /**
     * @param  array<string, mixed>  $place
     * @param  array{element: string, at: Carbon}|null  $reopened
     */
    private function missing(ReadingKind $kind, array $place, AssemblyRecord $record, ?array $reopened): ?string
    {
        if (! isset($place['code'])) {
            return ': there is no such place in this build.';
        }
        $taken = $record->readings[$kind->value][$place['code']] ?? [];
        $last = end($taken) ?: null;
        if ($last === null) {
            return ": the {$kind->inWords()} is not measured.";
        }

        return SoundReading::against($kind->inWords(), $last, $record->gaugeOf($last)) ??
            $this->reopened($place['element'] ?? null, $last, $reopened);
    }

    public function take(BenchWork $work, ProofSpec $proof, Answer $answer, Person $by): void
    {
        $build = $work->build() ?? throw new Refusal('This unit has no released build yet.', 409);
        $this->record->record(
            $build,
            $proof->reading(),
            $proof->place(),
            $answer->string('reading'),
            $answer->string('gauge'),
            $answer,
            $by,
        );
    }

    public function undo(BenchWork $work, ProofSpec $proof): void
    {
        $build = $work->build();
        if ($build !== null) {
            Measurement::query()
                ->where('build_id', $build->id)
                ->where('kind', $proof->reading())
                ->where('code', $proof->place())
                ->whereNull('undone_at')
                ->get()
                ->each(fn (Measurement $m) => $m->update(['undone_at' => now()]));
        }
    }

    /** @param  array{element: string, at: Carbon}|null  $reopened */
    private function reopened(?string $element, Measurement $last, ?array $reopened): ?string
    {
        return $reopened !== null && $reopened['element'] === $element && $last->measured_at <= $reopened['at']
            ? ' must be measured again after the test it failed.'
            : null;
    }
}
