<?php

namespace App\Stations\Dyno;

use App\Stations\Dyno\Actions\AnalyseRun;
use App\Stations\Dyno\Models\Run;
use Yard\Core\Dyno\ProgramCourse;

/**
 * One test cell as the gateway works it: takes its queued runs one after the other, orders their steps, writes down
 * what comes, tells the viewers, and ends every run in one way or another.
 */
final class CellLink
{
    private ?Run $run = null;

    private ?RigLine $rig = null;

    /** @var resource|null */
    private $file = null;

    /** @var list<string> channels of the run, time first */
    private array $columns = [];

    private ?ProgramCourse $course = null;

    /** The rig knows when the run ends. */
    private bool $endTold = false;

    /** @var list<list<float>> samples of the current run as browsers see them, for browsers that come later */
    private array $replay = [];

    /** @var list<list<float>> of these, what was not sent to browsers yet */
    private array $fresh = [];

    private int $samples = 0;

    private float $lastSaved = 0.0;

    private float $lastHeard = 0.0;

    private float $freeSince = 0.0;

    /** @var array{Run, string, ?string}|null run, state and error still to be written: the database was away */
    private ?array $ended = null;

    /** Every so many samples one goes to the browsers: twenty a second of the run. */
    private const THIN = 10;

    /** Samples beyond this many times those of the program are no run any more. */
    private const TOO_MANY = 2.0;

    /** A rig that says nothing for so long is taken for dead, seconds. */
    private const SILENCE_S = 10.0;

    /** The abort of the run before must reach the rig before anybody else plugs in, seconds. */
    private const PARTS_S = 2.0;

    /** @param  \Closure(callable(): void): void  $guarded  does what needs the database, which may be away */
    public function __construct(
        private readonly string $cell,
        private readonly int $port,
        private readonly LiveViewers $viewers,
        private readonly \Closure $guarded,
    ) {
    }

    public function tick(): void
    {
        if ($this->ended !== null) {
            $this->write(...$this->ended);
        }
        if ($this->run !== null && microtime(true) - $this->lastHeard > self::SILENCE_S) {
            $this->finish('failed', 'The test rig fell silent for '.(int) self::SILENCE_S.' seconds.');
        }
        if ($this->run === null) {
            $this->run = Run::query()
                ->where('state', 'queued')
                ->where('cell', $this->cell)
                ->orderBy('id')
                ->first();
            $this->run !== null && $this->connect($this->run);

            return;
        }
        if (Run::query()->whereKey($this->run->id)->value('cancel_requested')) {
            $this->rig?->send(['type' => 'abort']);
            $this->finish('cancelled', null);
        }
    }

    /** What the rig says of itself, as long as no run has the cable. */
    public function look(): void
    {
        if ($this->run !== null) {
            RigWatch::runs($this->cell);
        } elseif (microtime(true) - $this->freeSince > self::PARTS_S) {
            RigWatch::look($this->cell, $this->port);
        }
    }

    private function connect(Run $run): void
    {
        $run->update(['state' => 'running', 'progress' => 0]);
        [$this->replay, $this->fresh, $this->samples, $this->lastHeard] = [[], [], 0, microtime(true)];
        $this->course = new ProgramCourse($run->program['steps'], (float) $run->program['end']);
        @mkdir(dirname(Trace::path($run)), 0775, true);
        $file = @fopen(Trace::path($run), 'w');
        if ($file === false) {
            $this->finish('failed', 'The recording cannot be written: the disk may be full.');

            return;
        }
        [$this->file, $this->columns] = [$file, ['t_s', ...Trace::CHANNELS]];
        fputcsv($file, $this->columns, escape: '');
        $this->rig = new RigLine(
            $this->port,
            [
                'type' => 'start',
                'run' => (string) $run->id,
                'serial' => $run->specimen,
                'end_s' => $this->course->longest(),
            ],
            $this->take(...),
            $this->told(...),
            fn (string $state, ?string $why) => ($this->guarded)(fn () => $this->finish($state, $why)),
            self::before($run),
        );
    }

    /** @return list<array<string, mixed>> filling and priming, where it is known how much the unit takes */
    private static function before(Run $run): array
    {
        $litres = (float) ($run->program['fluid']['litres'] ?? 0.0);

        return $litres <= 0.0 ? [] : [
            ['type' => 'fill', 'serial' => $run->specimen, 'litres' => $litres],
            ['type' => 'prime', 'serial' => $run->specimen],
        ];
    }

    /** @param  array<string, mixed>  $message */
    private function told(array $message): void
    {
        match ($message['type'] ?? '') {
            'started', 'resumed' => $this->onLine(),
            'did' => $this->course?->did((int) ($message['n'] ?? -1), (float) ($message['t'] ?? 0.0)),
            default => null,
        };
    }

    /** What was said last may have been lost with the cable. */
    private function onLine(): void
    {
        $this->endTold = false;
        $this->order([0.0]);
    }

    /**
     * Sends the steps that are due soon, and when the run ends where a step waited.
     *
     * @param  list<float>  $sample  the last one, time first
     */
    private function order(array $sample): void
    {
        $course = $this->course;
        if ($course === null) {
            return;
        }
        $channels = array_combine(array_slice($this->columns, 0, count($sample)), $sample);
        foreach ($course->due($sample[0], $channels) as $order) {
            $this->rig?->send(['type' => 'order'] + $order);
        }
        if (! $this->endTold && ! $course->waits() && $course->longest() > $course->end()) {
            $this->rig?->send(['type' => 'end', 'at' => $course->end()]);
            $this->endTold = true;
        }
    }

    /**
     * Writes samples down before they are acknowledged.
     *
     * @param  list<mixed>  $rows  as the rig sends them: one number a column
     */
    private function take(array $rows): bool
    {
        [$run, $course] = [$this->run, $this->course];
        if ($run === null || $course === null || $this->file === null) {
            return false;
        }
        $wrong = $this->written($this->file, $rows) ?? $this->followed($run, $course, $rows);
        if ($wrong !== null) {
            $this->rig?->send(['type' => 'abort']);
            $this->finish('failed', $wrong);

            return false;
        }
        $this->lastHeard = microtime(true);
        $now = (float) (end($rows)[0] ?? 0.0);
        $progress = round(min(99.0, (100.0 * $now) / $course->end()), 2);
        $this->viewers->tell($run->id, 'samples', [
            'rows' => $this->fresh,
            'progress' => $progress,
            'late_s' => round($course->late(), 2),
            'waits' => $course->waitingAt($now),
        ]);
        $this->fresh = [];
        if (microtime(true) - $this->lastSaved > 1.0) {
            $this->lastSaved = microtime(true);
            ($this->guarded)(function () use ($run, $progress): void {
                Run::query()->whereKey($run->id)->update(['progress' => $progress]);
            });
        }

        return true;
    }

    /**
     * Goes on with the program.
     *
     * @param  list<mixed>  $rows  samples that were written down
     * @return string|null why the run cannot go on
     */
    private function followed(Run $run, ProgramCourse $course, array $rows): ?string
    {
        if ($this->samples > self::TOO_MANY * $run->program['rate_hz'] * $course->longest()) {
            return 'The test rig sends on after the end of the program.';
        }
        /** @var list<float> $last */
        $last = end($rows) ?: [0.0];
        $this->order($last);

        return $course->stopped();
    }

    /**
     * @param  resource  $file
     * @param  list<mixed>  $rows
     * @return string|null what is wrong with them, or with the disk
     */
    private function written($file, array $rows): ?string
    {
        foreach ($rows as $row) {
            if (! $this->isSample($row)) {
                $shown = mb_strimwidth((string) json_encode($row), 0, 80, '…');

                return "The test rig sent what is no sample: $shown";
            }
            if (fputcsv($file, $row, escape: '') === false) {
                return 'The recording could not be written: the disk may be full.';
            }
            if ($this->samples++ % self::THIN === 0) {
                $this->replay[] = $this->fresh[] = $row;
            }
        }

        return fflush($file) ? null : 'The recording could not be written: the disk may be full.';
    }

    /** @phpstan-assert-if-true list<float> $row */
    private function isSample(mixed $row): bool
    {
        return is_array($row) &&
            count($row) === count($this->columns) &&
            array_filter($row, fn (mixed $v): bool => (! is_int($v) && ! is_float($v)) || ! is_finite($v)) === [];
    }

    private function finish(string $state, ?string $error): void
    {
        $run = $this->run;
        [$this->run, $this->freeSince] = [null, microtime(true)];
        if ($this->file !== null) {
            fclose($this->file);
            $this->file = null;
        }
        $this->rig?->close();
        $this->rig = null;
        if ($run !== null) {
            $this->ended = [$run, $state, $error];
            $this->write($run, $state, $error);
        }
    }

    /** Written again at every tick until the database takes it: no run stays open for want of an end. */
    private function write(Run $run, string $state, ?string $error): void
    {
        $course = $this->course ?? new ProgramCourse($run->program['steps'], (float) $run->program['end']);
        $run->update([
            'program' => ['steps' => $course->asDone(), 'end' => $course->end()] + $run->program,
            'state' => $state,
            'error' => $error,
            'ended_at' => now(),
            'trace_path' => $state === 'recorded' ? "traces/run-$run->id.csv" : null,
        ]);
        $this->ended = null;
        if ($state === 'recorded') {
            AnalyseRun::dispatch($run->id);
        }
        $this->viewers->tell($run->id, 'end', ['state' => $state, 'error' => $error]);
    }

    /** @return list<list<float>>|null what came of this run so far; null: it does not run here */
    public function soFar(int $run): ?array
    {
        return $this->run?->id === $run ? $this->replay : null;
    }
}
