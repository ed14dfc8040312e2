<?php

namespace App\Stations\Dyno;

use App\Stations\Dyno\Actions\AnalyseRun;
use App\Stations\Dyno\Models\Run;

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

    /** @var array<int, float> step => time at which the rig did it */
    private array $done = [];

    /** Step of the program that is ordered next. */
    private int $step = 0;

    /** @var list<list<float>> samples of the current run as browsers see them, for browsers that come later */
    private array $replay = [];

    /** @var list<list<float>> of these, what was not sent to browsers yet */
    private array $fresh = [];

    private int $samples = 0;

    private float $lastSaved = 0.0;

    private float $lastHeard = 0.0;

    /** @var array{Run, string, ?string}|null run, state and error still to be written: the database was away */
    private ?array $ended = null;

    /** Orders go out so long before they are due, so that the rig does them on time, seconds of the run. */
    private const AHEAD_S = 2.0;

    /** Every so many samples one goes to the browsers: twenty a second of the run. */
    private const THIN = 10;

    /** Samples beyond this many times those of the program are no run any more. */
    private const TOO_MANY = 2.0;

    /** A rig that says nothing for so long is taken for dead, seconds. */
    private const SILENCE_S = 10.0;

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

    private function connect(Run $run): void
    {
        $run->update(['state' => 'running', 'progress' => 0]);
        [$this->replay, $this->fresh, $this->samples, $this->lastHeard] = [[], [], 0, microtime(true)];
        [$this->step, $this->done] = [0, []];
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
                'end_s' => $run->program['end'],
            ],
            $this->take(...),
            $this->told(...),
            fn (string $state, ?string $why) => ($this->guarded)(fn () => $this->finish($state, $why)),
        );
    }

    /** @param  array<string, mixed>  $message */
    private function told(array $message): void
    {
        match ($message['type'] ?? '') {
            'started', 'resumed' => $this->order(0.0),
            'did' => $this->done[(int) ($message['n'] ?? -1)] = (float) ($message['t'] ?? 0.0),
            default => null,
        };
    }

    /** Sends the steps that are due soon. */
    private function order(float $now): void
    {
        $steps = $this->run->program['steps'] ?? [];
        while (isset($steps[$this->step]) && $steps[$this->step]['t'] <= $now + self::AHEAD_S) {
            $step = $steps[$this->step];
            $order = ['type' => 'order', 'n' => $this->step, 'at' => $step['t']];
            $this->rig?->send($order + array_diff_key($step, ['t' => 0]));
            $this->step++;
        }
    }

    /**
     * Writes samples down before they are acknowledged.
     *
     * @param  list<mixed>  $rows  as the rig sends them: one number a column
     */
    private function take(array $rows): bool
    {
        $run = $this->run;
        if ($run === null || $this->file === null) {
            return false;
        }
        $wrong = $this->written($this->file, $rows);
        if ($wrong === null && $this->samples > self::TOO_MANY * $run->program['rate_hz'] * $run->program['end']) {
            $wrong = 'The test rig sends on after the end of the program.';
        }
        if ($wrong !== null) {
            $this->finish('failed', $wrong);

            return false;
        }
        $this->lastHeard = microtime(true);
        $now = (float) ((end($this->replay) ?: [0.0])[0]);
        $this->order($now);
        $progress = round(min(99.0, (100.0 * $now) / $run->program['end']), 2);
        $this->viewers->tell($run->id, 'samples', ['rows' => $this->fresh, 'progress' => $progress]);
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
        $this->run = null;
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
        $steps = $run->program['steps'];
        foreach ($this->done as $n => $t) {
            isset($steps[$n]) && ($steps[$n]['t'] = $t);
        }
        $run->update([
            'program' => ['steps' => $steps] + $run->program,
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
